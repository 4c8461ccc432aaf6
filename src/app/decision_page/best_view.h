#pragma once

#include "core/words/decide.h"

#include <QWidget>

#include <vector>

namespace knot::app {

/// How often each club is the best: a cord a club, as far as its chance, with a knot for every tenth.
class BestView : public QWidget {
    Q_OBJECT

public:
    BestView();
    void display(const words::BestPicture& picture, std::vector<std::string> names);
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    words::BestPicture m_picture;
    std::vector<std::string> m_names; ///< by build
};

} // namespace knot::app
