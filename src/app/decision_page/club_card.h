#pragma once

#include <QAbstractButton>
#include <QStringList>

#include <optional>
#include <vector>

namespace knot::app {

/// A club as it came out of a test.
struct ClubPicture {
    std::size_t build = 0; ///< its tag's shape and colour
    QString name, under;   ///< "was Fern · your own"
    bool isVeiled = false; ///< its tag is still on: the name is the tag's
    std::vector<double> shots;
    QString average;   ///< of the shots, in words
    double mean = 0;   ///< of the shots
    QStringList found; ///< a line each; what has no room is left out whole
    QString said;      ///< in the player's words
    struct Best {
        QString of;
        double chance = 0;
        QString inHundred; ///< "more than 99"
    };
    std::vector<Best> best; ///< how often it is the best, an outcome each
    bool operator==(const ClubPicture&) const = default;
};
inline bool operator==(const ClubPicture::Best& a, const ClubPicture::Best& b) {
    return a.of == b.of && a.chance == b.chance && a.inHundred == b.inHundred;
}

/// A club's card: its shots on a cord, what was found of it, what was said, how often it is the best. Pressing it takes
/// it for the decision.
class ClubCard : public QAbstractButton {
    Q_OBJECT

public:
    explicit ClubCard(QWidget* parent = nullptr);
    /// The shots of all clubs lie between `low` and `high`.
    void display(const ClubPicture& picture, double low, double high, bool isChosen);
    const ClubPicture& picture() const { return m_picture; }
    /// Of many clubs a card is low, and says what has room.
    void setLow(bool isLow);
    QSize sizeHint() const override { return {260, m_isLow ? 150 : 236}; }
    QSize minimumSizeHint() const override { return {150, 128}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    void drawHead(QPainter& painter) const;
    void drawShots(QPainter& painter, double y) const;
    void drawWords(QPainter& painter, double top, double bottom) const;
    void drawBest(QPainter& painter, double top) const;

    ClubPicture m_picture;
    double m_low = 0, m_high = 1;
    bool m_isChosen = false, m_isLow = false;
};

} // namespace knot::app
