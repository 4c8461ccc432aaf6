#pragma once

#include "core/rack/ties.h"
#include "core/record/card.h"

#include <QCheckBox>

class QLineEdit;

namespace knot::app {

/// Whether something is held constant, as a cord: tied, frayed where it slipped or the Rack says that clubs differ,
/// open where nothing is known of it, dotted where it comes with what is tested.
class TieBox : public QCheckBox {
    Q_OBJECT

public:
    using QCheckBox::QCheckBox;
    void setState(rack::Tie::State state);
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;
    bool hitButton(const QPoint& pos) const override { return rect().contains(pos); }

private:
    rack::Tie::State m_state = rack::Tie::State::notOnRack;
};

/// One thing held constant in a line: its cord, its name, and what is known of it or how it slipped, typed in place.
class TieRow : public QWidget {
    Q_OBJECT

public:
    explicit TieRow(std::size_t at);
    void display(const record::Held& held, const rack::Tie& tie, const QString& hint);

signals:
    void heldChanged(bool isHeld);
    void slipTyped(const QString& slip);

private:
    TieBox* m_box;
    QLineEdit* m_slip;
};

} // namespace knot::app
