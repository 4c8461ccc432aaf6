#pragma once

#include "files/csv_headings.h"

#include <QDialog>
#include <QList>

class QComboBox;

namespace knot::app {

/// Asks what the headings of a shot file mean: each beside a choice of columns, those that are
/// understood already chosen. Only needed when the file can't be read without.
class HeadingDialog : public QDialog {
    Q_OBJECT

public:
    HeadingDialog(const QString& file, const std::vector<std::string>& headings, const files::HeadingMap& known,
                  QWidget* parent = nullptr);

    /// Every heading with its column; an empty one keeps it as text.
    files::HeadingMap map() const;

private:
    std::vector<std::string> m_headings;
    QList<QComboBox*> m_choices; ///< beside `m_headings`
};

} // namespace knot::app
