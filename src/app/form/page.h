#pragma once

#include <QWidget>

namespace knot::app {

/// A page of the window. What it shows is made anew when it is seen: a change marks it stale, and a
/// page that is not looked at waits with the work until it is.
class Page : public QWidget {
    Q_OBJECT

public:
    using QWidget::QWidget;
    /// What was typed and not taken is given up: nobody is left to take it.
    ~Page() override;

    /// What stands over it; empty where that is the title of the test in hand.
    virtual QString heading() const { return {}; }
    virtual QString subtitle() const = 0;
    /// Where the keys go when the page is turned to.
    virtual void takeFocus() = 0;
    void markStale();
    /// Makes it anew now if it is stale, seen or not: for a picture of it.
    void refreshIfStale();

protected:
    virtual void refresh() = 0;
    void showEvent(QShowEvent* event) override;
    void changeEvent(QEvent* event) override;

private:
    bool m_stale = true;
};

} // namespace knot::app
