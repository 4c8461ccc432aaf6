#pragma once

#include "app/form/panel.h"
#include "app/pictures/pictures.h"

#include <functional>
#include <optional>

class QBoxLayout;
class QPushButton;

namespace knot::app {

class Book;
class Declaring;
class Judging;
class PictureTabs;
class PictureView;
class SheetStrip;
class TestInHand;

/// The right side of the Reading page: the number in hand as a picture, by number key, or two beside each other (V).
/// A shot that is pointed at lights up in both. Under them what the verdicts of that number rest on.
class PicturePanel : public Panel {
    Q_OBJECT

public:
    PicturePanel(const TestInHand& hand, Declaring& declaring, Judging& judging, Book& book);

    /// Another reading is there, or none: the numbers that can be shown.
    void takeReading();
    /// Which line of the ledger is in hand.
    void show(record::Metric metric, record::BuildAt build, record::OutcomeKind kind);
    /// A picture by its name, in any case of letters; another name changes nothing.
    void showPictureNamed(const QString& name);
    /// This one until somebody chooses; `show` shows it.
    void propose(PictureKind kind);
    /// Another test is in hand: nothing has been chosen of it.
    void forgetChoice();
    /// A narrow window keeps its room for the picture; a screen reader hears the words all the same.
    void setNarrow(bool narrow);
    /// What cannot be kept yet can be.
    void setKeepable(bool keepable);
    /// The picture as it stands, for paper and files.
    void paintShown(QPainter& painter) const;
    /// Its keys work all over a page: numbers, V, Ctrl+Shift+E.
    void bindKeys(QWidget* page);
    SheetStrip* strip() const { return m_strip; }

signals:
    void metricChosen(record::Metric metric);
    void keepRequested();
    /// The picture as it stands is to be saved: its size, and what paints it.
    void saveRequested(const QSize& size, const std::function<void(QPainter&)>& paint);
    void copyRequested(const QSize& size, const std::function<void(QPainter&)>& paint);
    /// A shot of the case that is seen is lifted out to see what then, or put back.
    void lifted(std::optional<std::size_t> shot);

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    void wire();
    void showPictures();
    void showUnder();
    void turnTo(PictureKind kind);
    void toggleBeside();
    void chooseColumns();
    void moveShape(const Picture::Dragged& dragged);
    void caption(const QString& knotText);

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Judging& m_judging;
    Book& m_book;
    std::optional<record::Metric> m_metric;
    record::BuildAt m_build;
    record::OutcomeKind m_outcome = record::OutcomeKind::average;
    record::Structure m_structure; ///< of what is seen
    PictureKind m_kind = PictureKind::cords;
    /// A second picture, of the number that was in hand when it was put aside.
    struct Beside {
        PictureKind kind = PictureKind::cords;
        record::Metric metric = record::Metric::carry;
        record::OutcomeKind outcome = record::OutcomeKind::average;
    };
    std::optional<Beside> m_beside;
    std::unique_ptr<Picture> pictureOf(const Beside& what) const;
    std::vector<record::Metric> m_columns; ///< of the table; none: as is usual
    double m_wind = 0;                     ///< m/s along the flights
    bool m_hasChosen = false;              ///< which picture is shown of the test in hand
    bool m_isNarrow = false;
    PictureTabs* m_tabs = nullptr;
    QComboBox* m_metrics = nullptr;
    QComboBox* m_whose = nullptr; ///< of several players or deliveries one, or all together
    QLabel* m_caption = nullptr;
    QPushButton* m_keep = nullptr;
    QBoxLayout* m_pair = nullptr;
    PictureView* m_picture = nullptr;
    PictureView* m_second = nullptr;
    QLabel* m_finding = nullptr;
    SheetStrip* m_strip = nullptr;
};

} // namespace knot::app
