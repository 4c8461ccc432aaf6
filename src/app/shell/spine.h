#pragma once

#include <QStringList>
#include <QWidget>

namespace knot::app {

/// The stages of a test as knots on a cord, down the left edge. Arrow keys or the mouse choose.
class Spine : public QWidget {
    Q_OBJECT

public:
    explicit Spine(const QStringList& stages, QWidget* parent = nullptr);

    void setCurrent(int stage);
    int current() const { return m_current; }
    /// A stage that is out of reach is drawn hollow and faint and can't be chosen.
    void setReachable(int stage, bool reachable);

signals:
    void chosen(int stage);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    QSize sizeHint() const override;

private:
    double knotY(int stage) const;
    void choose(int stage);

    QStringList m_stages;
    QList<bool> m_reachable;
    int m_current = 0;
};

} // namespace knot::app
