#pragma once

#include "app/bay_page/now_view.h"

namespace knot::app {

/// A second window for the player: only what blinding and the sheet let the player see.
class PlayerWindow : public QWidget {
    Q_OBJECT

public:
    explicit PlayerWindow(QWidget* parent = nullptr);
    void setPicture(const NowPicture& picture, const QString& course);
    const NowPicture& picture() const { return m_picture; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    NowPicture m_picture;
    QString m_course;
};

} // namespace knot::app
