#pragma once

#include "core/judge/may_see.h"

#include <QWidget>

#include <optional>

class QLabel;

namespace knot::app {

/// Hangs where comparisons would stand while nobody may see them; a look is taken here.
class Curtain : public QWidget {
    Q_OBJECT

public:
    explicit Curtain(QWidget* parent = nullptr);
    /// Hidden where nothing is withheld.
    void display(const std::optional<judge::Withheld>& withheld);

signals:
    void lookRequested();

private:
    QLabel* m_text;
};

} // namespace knot::app
