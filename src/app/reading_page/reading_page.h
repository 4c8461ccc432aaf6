#pragma once

#include "app/form/page.h"
#include "app/pictures/pictures.h"
#include "app/reading_page/ledger.h"
#include "core/record/metric.h"
#include "core/record/position.h"

#include <functional>
#include <optional>

class QBoxLayout;
class QLabel;
class QLineEdit;
class QListView;
class QScrollArea;
class QStackedWidget;

namespace knot::app {

class Book;
class Curtain;
class Declaring;
class Judging;
class OneRunView;
class PicturePanel;
class TestInHand;
class WholeLabel;

/// What the shots say: the ledger of verdicts, filtered by what is typed (/) and in one of three orders (O), what to
/// keep in mind or how the line in hand was reckoned (Enter), and pictures. A shot held out of a picture shows in
/// each line what would be said without it. Behind a curtain while the sheet says that nobody sees comparisons before
/// the plan is done.
class ReadingPage : public Page {
    Q_OBJECT

public:
    ReadingPage(const TestInHand& hand, Declaring& declaring, Judging& judging, Book& book, QWidget* parent = nullptr);
    void takeFocus() override;
    /// One line about the record: "45 shots · 5 laps · 2 set aside".
    QString subtitle() const override;

    /// Shows a picture by its name, in any case of letters; another name changes nothing.
    void showPictureNamed(const QString& name);

signals:
    /// The list of shots, to put the record right.
    void shotsRequested();
    void keepRequested();
    /// The picture as it stands is to be saved: its size, and what paints it.
    void saveRequested(const QSize& size, const std::function<void(QPainter&)>& paint);
    void copyRequested(const QSize& size, const std::function<void(QPainter&)>& paint);
    /// A fair test of these clubs, by name.
    void fairTestRequested(const std::vector<std::string>& clubs);

protected:
    void refresh() override;
    void showEvent(QShowEvent* event) override;
    void hideEvent(QHideEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    QWidget* buildLedger();
    void buildKeys();
    void wire();
    void refreshFoot();
    QString checksHtml() const;
    QString arithmeticHtml() const;
    void returnTo(std::optional<record::Metric> metric, record::BuildAt build);
    void showMetric(record::Metric metric);
    void showFilter(bool shown);
    void nextOrder();
    QString againstText() const;

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Judging& m_judging;
    Book& m_book;
    std::optional<record::Metric> m_metric;
    record::BuildAt m_build;
    record::OutcomeKind m_outcome = record::OutcomeKind::average;
    bool m_isReturning = false;     ///< to the line that was in hand, in another reading
    bool m_showsArithmetic = false; ///< under the ledger, in place of what to keep in mind
    QWidget* m_body = nullptr;
    QScrollArea* m_bodyArea = nullptr; ///< which scrolls where the window is small
    QBoxLayout* m_sides = nullptr;     ///< ledger and picture
    Curtain* m_curtain = nullptr;
    LedgerModel* m_model = nullptr;
    QStackedWidget* m_says = nullptr; ///< the ledger, or the calm page of one run each
    QListView* m_ledger = nullptr;
    OneRunView* m_oneRun = nullptr;
    WholeLabel* m_answer = nullptr; ///< to what was asked, before the ledger
    QLabel* m_against = nullptr;
    QLabel* m_checks = nullptr;
    QScrollArea* m_checkArea = nullptr;
    QWidget* m_checkLine = nullptr;
    QLineEdit* m_filter = nullptr;
    LedgerOrder m_order = LedgerOrder::bySettled;
    PicturePanel* m_pictures = nullptr;
};

} // namespace knot::app
