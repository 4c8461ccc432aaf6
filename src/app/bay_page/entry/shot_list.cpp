#include "app/bay_page/entry/shot_list.h"

#include "app/bay_page/bay_words.h"
#include "app/bay_page/entry/shot_table.h"
#include "app/form/ask_bar.h"
#include "app/form/panel.h"
#include "app/form/typed.h"
#include "app/session/bay_run.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/record/text/number_text.h"
#include "core/record/typed/number_in.h"

#include <QHeaderView>
#include <QKeyEvent>
#include <QStackedWidget>
#include <QTableView>
#include <QVBoxLayout>

#include <algorithm>

namespace knot::app {
namespace {

QString whyNot(bay::CantCorrect why) {
    switch (why) {
    case bay::CantCorrect::noSuchShot:
        return ShotList::tr("That shot is gone.");
    case bay::CantCorrect::noSuchStint:
        return ShotList::tr("The plan says where its stints begin; shots can go to another club's stint.");
    case bay::CantCorrect::unnamed:
        return ShotList::tr("Which club that stint had is not known yet: enter its tag first.");
    case bay::CantCorrect::notTyped:
        return ShotList::tr("A number that was read by a device stays as it was read; set the shot aside instead.");
    case bay::CantCorrect::sameStint:
        return ShotList::tr("It is like that already.");
    case bay::CantCorrect::otherClub:
        return ShotList::tr("The shot before it is of another club, player or sitting, or a warm-up swing.");
    }
    return {};
}

} // namespace

ShotList::ShotList(const TestInHand& hand, BayRun& bay, QWidget* parent)
    : QWidget(parent)
    , m_hand(hand)
    , m_bay(bay) {
    buildUi();
    connect(
        m_model, &ShotTable::typed, this,
        [this](qint64 shot, int metric, const QString& text) {
            take(record::ShotId{shot}, static_cast<record::Metric>(metric), text);
        },
        Qt::QueuedConnection); // the model is made anew, while its editor is open still
    connect(&bay, &BayRun::changed, this, [this] {
        m_stale = true;
        if (isVisible())
            refresh();
    });
    connect(m_ask, &AskBar::done, this, [this] {
        m_foot->setCurrentIndex(0);
        takeFocus();
    });
}

void ShotList::buildUi() {
    setObjectName(QStringLiteral("shotList"));
    m_model = new ShotTable(this);
    m_table = new QTableView;
    m_table->setObjectName(QStringLiteral("shotTable"));
    m_table->setAccessibleName(tr("Shots in the order struck"));
    m_table->setModel(m_model);
    m_table->setFont(typeface(size::body));
    m_table->setFrameShape(QFrame::NoFrame);
    m_table->setShowGrid(false);
    m_table->setSelectionBehavior(QAbstractItemView::SelectRows);
    m_table->setSelectionMode(QAbstractItemView::ExtendedSelection);
    m_table->setEditTriggers(QAbstractItemView::EditKeyPressed | QAbstractItemView::DoubleClicked);
    m_table->setTabKeyNavigation(false);
    m_table->verticalHeader()->hide();
    m_table->verticalHeader()->setDefaultSectionSize(static_cast<int>(26 * typeScale()));
    m_table->horizontalHeader()->setHighlightSections(false);
    m_table->horizontalHeader()->setFont(typeface(size::caption));
    m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    m_table->horizontalHeader()->setMinimumSectionSize(static_cast<int>(64 * typeScale()));
    m_table->installEventFilter(this);
    m_ask = new AskBar;
    m_ask->setObjectName(QStringLiteral("shotListAsk"));
    m_clubs = captionLabel("shotListClubs");
    m_keys = captionLabel("shotListKeys",
                          tr("Shift with arrows selects several · Space counts or sets aside · S sets aside and says "
                             "why · P says who struck them · N a stint begins here · J joins it with the one before · "
                             "F2 types a number over, "
                             "Delete blanks it · U takes back · Escape leaves"));
    auto* keys = new QWidget;
    auto* lines = new QVBoxLayout(keys);
    lines->setContentsMargins(0, 0, 0, 0);
    lines->addWidget(m_clubs);
    lines->addWidget(m_keys);
    m_foot = new QStackedWidget;
    m_foot->addWidget(keys);
    m_foot->addWidget(m_ask);
    m_foot->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    QVBoxLayout* column = nullptr;
    auto* panel = headedPanel(tr("The shots, to put right"), column);
    column->addWidget(m_table, 1);
    column->addWidget(m_foot);
    auto* outer = new QVBoxLayout(this);
    outer->setContentsMargins(0, 0, 0, 0);
    outer->addWidget(panel);
}

void ShotList::open(const record::DisplayUnits& units) {
    m_units = units;
    refresh();
    const int last = m_model->rowCount() - 1;
    if (last >= 0) {
        m_table->setCurrentIndex(m_model->index(last, 0));
        m_table->scrollToBottom();
    }
}

void ShotList::takeFocus() {
    m_table->setFocus();
}

void ShotList::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    if (m_stale)
        refresh();
}

// What is selected stays so, whatever its rows say now.
void ShotList::refresh() {
    if (!m_hand.has())
        return;
    m_stale = false;
    QPalette palette = m_table->palette();
    palette.setColor(QPalette::Highlight, colours().selection);
    palette.setColor(QPalette::HighlightedText, colours().ink);
    m_table->setPalette(palette);
    const bay::Shots before = selected();
    const QModelIndex current = m_table->currentIndex();
    const auto& test = m_hand.test();
    m_model->setTest(test, m_units, maySeeShots(test, Eyes::fitter));
    QStringList clubs;
    for (record::BuildAt i; i < std::min<std::size_t>(test.builds.size(), 9); ++i)
        clubs << tr("%1 %2").arg(i + 1).arg(nameOf(test, i));
    m_clubs->setText(tr("Struck with: %1").arg(clubs.join(QStringLiteral(" · "))));
    if (m_model->rowCount() == 0)
        return;
    m_table->setCurrentIndex(m_model->index(std::clamp(current.row(), 0, m_model->rowCount() - 1),
                                            std::clamp(current.column(), 0, m_model->columnCount() - 1)));
    for (int row = 0; row < m_model->rowCount() && before.size() > 1; ++row)
        if (before.contains(m_model->shotAt(row)))
            m_table->selectionModel()->select(m_model->index(row, 0),
                                              QItemSelectionModel::Select | QItemSelectionModel::Rows);
}

bay::Shots ShotList::selected() const {
    bay::Shots shots;
    for (const QModelIndex& row : m_table->selectionModel()->selectedRows())
        shots.insert(m_model->shotAt(row.row()));
    return shots;
}

QString ShotList::numbersOf(const bay::Shots& shots) const {
    QStringList numbers;
    for (std::size_t i = 0; i < m_hand.test().shots.size(); ++i)
        if (shots.contains(m_hand.test().shots[i].id))
            numbers << QString::number(i + 1);
    return (numbers.size() == 1 ? tr("shot %1") : tr("shots %1")).arg(numbers.join(QStringLiteral(", ")));
}

void ShotList::correct(const QString& what, const QString& history,
                       const std::function<bay::Corrected<bay::From>(record::Test&)>& edit) {
    std::optional<bay::CantCorrect> refused;
    m_bay.correct(what, history, [&](record::Test& test) {
        const auto done = edit(test);
        if (!done)
            refused = done.error();
        return done.value_or(test.shots.size());
    });
    if (refused)
        emit complained(whyNot(*refused));
}

void ShotList::moveTo(int club) {
    const auto& test = m_hand.test();
    const auto shots = selected();
    if (shots.empty() || static_cast<std::size_t>(club) >= test.builds.size())
        return;
    const record::BuildAt build(static_cast<std::size_t>(club));
    correct(tr("shots of another club"), tr("%1: struck with %2 after all").arg(numbersOf(shots), nameOf(test, build)),
            [&](record::Test& changed) { return bay::moveToClub(changed, shots, build); });
}

void ShotList::moveToPlayer() {
    const auto& test = m_hand.test();
    const auto shots = selected();
    if (test.players.size() < 2)
        return emit complained(tr("One player struck them all; O in the Bay hands over to another one."));
    QStringList names;
    for (const record::Player& player : test.players)
        names << QString::fromStdString(player.name);
    m_foot->setCurrentWidget(m_ask);
    m_ask->askChoice(tr("Who struck them?"), names, [this, shots, names](int answer) {
        correct(tr("shots of another player"), tr("%1: struck by %2 after all").arg(numbersOf(shots), names[answer]),
                [&](record::Test& changed) {
                    return bay::moveToPlayer(changed, shots, record::PlayerAt(static_cast<std::size_t>(answer)));
                });
    });
}

void ShotList::countOrSetAside() {
    using record::ShotStatus;
    const auto& test = m_hand.test();
    bay::Shots counted;
    bay::Shots setAside;
    for (const record::ShotId id : selected())
        if (const auto at = test.shotIndex(id)) {
            const auto status = test.shots[*at].status;
            if (status != ShotStatus::warmUp)
                (status == ShotStatus::counted ? counted : setAside).insert(id);
        }
    if (!counted.empty())
        return this->setAside(counted, {});
    if (setAside.empty())
        return emit complained(tr("A warm-up swing never counts, so there is nothing to set aside."));
    correct(tr("shots counted after all"), tr("%1: counted after all").arg(numbersOf(setAside)),
            [&](record::Test& changed) -> bay::Corrected<bay::From> {
                bay::From from = changed.shots.size();
                for (const record::ShotId id : setAside)
                    if (const auto done =
                            bay::changeStatus(changed, id, ShotStatus::counted, bay::momentOf(changed, true)))
                        from = std::min(from, *done);
                return from;
            });
}

void ShotList::setAsideWhy() {
    const auto shots = selected();
    m_foot->setCurrentWidget(m_ask);
    m_ask->askLine(tr("Set aside after the number was seen: why?"), {}, {},
                   [this, shots](const QString& reason) { setAside(shots, reason); });
}

void ShotList::setAside(const bay::Shots& shots, const QString& reason) {
    using record::ShotStatus;
    bool keptAll = false;
    correct(tr("a set-aside"),
            reason.isEmpty() ? tr("%1: set aside").arg(numbersOf(shots))
                             : tr("%1: set aside, %2").arg(numbersOf(shots), reason),
            [&](record::Test& changed) -> bay::Corrected<bay::From> {
                bay::From from = changed.shots.size();
                for (const record::ShotId id : shots) {
                    const auto done = bay::changeStatus(changed, id, ShotStatus::setAside, bay::momentOf(changed, true),
                                                        reason.toStdString());
                    if (done)
                        from = std::min(from, *done);
                    else
                        keptAll = keptAll || done.error() == bay::WhyNot::sheetKeeps;
                }
                return from;
            });
    if (keptAll)
        emit complained(tr("The sheet keeps every shot, so these too."));
}

void ShotList::seam(bool begins) {
    const auto shots = selected();
    if (shots.size() != 1)
        return emit complained(tr("One shot at a time: the first of the stint."));
    correct(begins ? tr("a stint begun") : tr("two stints joined"),
            begins ? tr("%1: a stint begins here").arg(numbersOf(shots))
                   : tr("%1: of one stint with the shot before").arg(numbersOf(shots)),
            [&](record::Test& changed) {
                return begins ? bay::splitStint(changed, *shots.begin()) : bay::joinStint(changed, *shots.begin());
            });
}

void ShotList::take(record::ShotId shot, record::Metric metric, const QString& text) {
    const record::MetricFormat format(metric, m_units);
    std::optional<double> value;
    if (!text.isEmpty()) {
        const auto number = record::valueTyped(text.toStdString(), metric, {m_units, decimalsHere()});
        if (!number)
            return emit complained(tr("%1 The shot is as it was.").arg(QString::fromStdString(number.error())));
        if (std::abs(*number) > record::mostReading)
            return emit complained(tr("“%1” is beyond what can be measured. The shot is as it was.").arg(text));
        value = *number;
    }
    const auto at = m_hand.test().shotIndex(shot);
    const auto before = at ? m_hand.test().shots[*at].readings.at(metric) : std::nullopt;
    auto shown = [&](std::optional<double> reading) {
        return reading ? QString::fromStdString(format.withUnit(*reading)) : tr("none");
    };
    correct(
        tr("a number put right"),
        tr("%1: %2 is %3, not %4")
            .arg(numbersOf({shot}), QString::fromStdString(record::info(metric).label), shown(value), shown(before)),
        [&](record::Test& changed) { return bay::setReading(changed, shot, metric, value); });
}

bool ShotList::act(int key, Qt::KeyboardModifiers modifiers) {
    const bool shift = modifiers.testFlag(Qt::ShiftModifier);
    if (modifiers.testFlag(Qt::ControlModifier) || modifiers.testFlag(Qt::AltModifier))
        return false;
    if (key >= Qt::Key_1 && key <= Qt::Key_9)
        return moveTo(key - Qt::Key_1), true;
    switch (key) {
    case Qt::Key_Space:
        return countOrSetAside(), true;
    case Qt::Key_S:
        return setAsideWhy(), true;
    case Qt::Key_P:
        return moveToPlayer(), true;
    case Qt::Key_N:
    case Qt::Key_J:
        return seam(key == Qt::Key_N), true;
    case Qt::Key_Delete:
    case Qt::Key_Backspace:
        if (const auto metric = m_model->metricAt(m_table->currentIndex().column()))
            take(m_model->shotAt(m_table->currentIndex().row()), *metric, {});
        else
            emit complained(tr("Go to a number first with the arrows; a shot itself is set aside with Space."));
        return true;
    case Qt::Key_U:
        return shift ? m_bay.redo() : m_bay.undo(), true;
    case Qt::Key_Escape:
    case Qt::Key_L:
        return emit left(), true;
    default:
        return false;
    }
}

bool ShotList::eventFilter(QObject* watched, QEvent* event) {
    if (watched != m_table || m_table->indexWidget(m_table->currentIndex()) != nullptr)
        return QWidget::eventFilter(watched, event);
    if (event->type() == QEvent::ShortcutOverride && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape) {
        event->accept(); // before the window's own
        return true;
    }
    if (event->type() != QEvent::KeyPress)
        return QWidget::eventFilter(watched, event);
    auto* key = static_cast<QKeyEvent*>(event);
    return act(key->key(), key->modifiers()) || QWidget::eventFilter(watched, event);
}

} // namespace knot::app
