#pragma once

#include <QAbstractButton>

namespace knot::app {

/// A thing to do as a card: its key, what it is, and a line on what comes of it. The default one stands
/// out. A key without a modifier works while the card's page is seen and no field has the keys.
class KeyCard : public QAbstractButton {
    Q_OBJECT

public:
    KeyCard(const QString& key, const QString& title, const char* name, QWidget* parent = nullptr);
    void setCaption(const QString& caption);
    void setDefault(bool isDefault);
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    QString m_key, m_caption;
    bool m_default = false;
};

/// A key's cap with its name, drawn from a point; gives its width.
double drawKeyCap(QPainter& painter, QPointF topLeft, const QString& key);

} // namespace knot::app
