#pragma once

#include <QString>
#include <QStringList>
#include <QWidget>

#include <optional>

class QPainter;

namespace knot::app {

/// What is to be done now, in words and knots, for reading from three metres away.
struct NowPicture {
    QString caption;                  ///< what to do: "Hand over", "Swing", "Draw a club"
    QString name;                     ///< with what
    std::optional<std::size_t> build; ///< its tag's shape and colour; nothing: no club or an unknown one
    QString count;                    ///< "shot 2 of 3"
    QString then;                     ///< "then Slate"
    std::optional<std::size_t> next;
    int tied = 0, knots = 0; ///< of the stint; no knots: no cord
    QString below;           ///< what is waited for, or what became of the last shot
    QStringList last;        ///< numbers of the last shot, each with its unit and what it is
    QStringList soFar;       ///< under each of them what the club in hand has shown so far; empty: nothing
    bool operator==(const NowPicture&) const = default;
};

/// The same for the bay and for the player's window: type grows with the box.
void paintNow(QPainter& painter, const NowPicture& picture, const QRectF& box);

class NowView : public QWidget {
    Q_OBJECT

public:
    explicit NowView(QWidget* parent = nullptr);
    void setPicture(const NowPicture& picture);
    const NowPicture& picture() const { return m_picture; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    NowPicture m_picture;
};

} // namespace knot::app
