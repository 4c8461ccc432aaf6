#pragma once

#include <QObject>

namespace knot::app {

/// Enter presses the button that has the focus, as Space does, everywhere in the application while it lives.
class PressByEnter : public QObject {
    Q_OBJECT

public:
    explicit PressByEnter(QObject* parent);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;
};

} // namespace knot::app
