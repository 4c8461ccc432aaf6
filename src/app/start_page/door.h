#pragma once

#include <QAbstractButton>

namespace knot::app {

/// A way in: what somebody comes with, drawn, said in two lines, with its key.
class Door : public QAbstractButton {
    Q_OBJECT

public:
    enum class Picture { shots, cord, test };
    Door(Picture picture, const QString& title, const QString& caption, const QString& key, const char* name,
         QWidget* parent = nullptr);

protected:
    void paintEvent(QPaintEvent* event) override;
    QSize sizeHint() const override { return {340, 330}; }
    QSize minimumSizeHint() const override { return {180, 210}; }

private:
    void drawPicture(QPainter& painter, const QRectF& box) const;
    Picture m_picture;
    QString m_caption, m_key;
};

} // namespace knot::app
