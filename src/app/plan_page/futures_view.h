#pragma once

#include "core/plan/worth.h"

#include <QWidget>

namespace knot::app {

/// Of a hundred, rounded so that they are a hundred: proved, chosen rightly without proof; the rest take another.
struct InHundred {
    int proved = 0, chosen = 0, wrong = 0;
};
InHundred inHundred(const plan::Futures& futures);

/// A hundred futures of a plan as a hundred knots: tied where the better club is proved, an open loop where it is
/// chosen without proof, a frayed end where another one is taken.
class FuturesView : public QWidget {
public:
    explicit FuturesView(QWidget* parent = nullptr);
    void setFutures(const plan::Futures& futures);
    /// What is left lying where another one is taken: ": 2.7 m left lying".
    void setLeft(const QString& left);
    QSize sizeHint() const override { return {320, 230}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    InHundred m_all;
    QString m_left;
};

} // namespace knot::app
