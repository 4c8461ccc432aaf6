#pragma once

#include <QStringList>
#include <QWidget>

namespace knot::app {

/// The way to a decision as knots on a cord: what was said blind, the tags off, decided. Done ones are tied.
class StepsView : public QWidget {
public:
    struct Step {
        QString name, more; ///< "tags off", "081c6349… agrees"
        bool isDone = false;
    };
    explicit StepsView(QWidget* parent = nullptr);
    void display(const QList<Step>& steps);
    QSize sizeHint() const override { return {600, 32}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    QList<Step> m_steps;
};

} // namespace knot::app
