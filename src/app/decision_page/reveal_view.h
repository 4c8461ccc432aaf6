#pragma once

#include <QWidget>

#include <string>
#include <vector>

namespace knot::app {

/// The tags on their cords, each with the club that it turned out to be.
class RevealView : public QWidget {
    Q_OBJECT

public:
    struct Tag {
        std::string tag, club; ///< `club` is empty while the seal is closed
        std::string under;     ///< "one's own"
    };
    RevealView();
    void display(std::vector<Tag> tags);
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::vector<Tag> m_tags;
};

} // namespace knot::app
