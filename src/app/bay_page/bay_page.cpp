#include "app/bay_page/bay_page.h"

#include "app/bay_page/averages_line.h"
#include "app/bay_page/bay_words.h"
#include "app/bay_page/course_strip.h"
#include "app/bay_page/entry/lay_view.h"
#include "app/bay_page/entry/shot_list.h"
#include "app/bay_page/hand_actions.h"
#include "app/bay_page/keys/commands.h"
#include "app/bay_page/player_window.h"
#include "app/form/ask_bar.h"
#include "app/form/panel.h"
#include "app/form/typed.h"
#include "app/session/declaring.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/bay/hand.h"
#include "core/bay/said.h"
#include "core/judge/bets/leads.h"
#include "core/record/text/number_text.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QScrollArea>
#include <QScrollBar>
#include <QSettings>
#include <QVBoxLayout>

namespace knot::app {
BayPage::BayPage(const TestInHand& hand, Declaring& declaring, BayRun& bay, Book& book, const EarlierTests& earlier,
                 QWidget* parent)
    : Page(parent)
    , m_hand(hand)
    , m_declaring(declaring)
    , m_bay(bay)
    , m_book(book)
    , m_earlier(earlier)
    , m_server(hand, bay)
    , m_folder(hand, bay, book, this)
    , m_ask(new AskBar)
    , m_actions(hand, bay, *m_ask, book)
    , m_figures(m_actions) {
    setObjectName(QStringLiteral("bayPage"));
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Bay"));
    buildUi();
    wire();
    wireSources();
}

BayPage::~BayPage() {
    delete m_playerWindow;
}

void BayPage::buildUi() {
    m_strip = new CourseStrip;
    QVBoxLayout* keyColumn = nullptr;
    auto* keyPanel = headedPanel({}, keyColumn);
    m_keys = new KeyRow;
    m_bottom = new QStackedWidget;
    m_bottom->addWidget(m_keys);
    m_bottom->addWidget(m_ask);
    m_bottom->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    keyColumn->addWidget(m_bottom, 0, Qt::AlignTop);
    m_source = captionLabel("source");
    m_averages = new AveragesLine(m_hand, m_book);
    auto* foot = new QHBoxLayout;
    foot->setSpacing(2 * size::grid);
    foot->addWidget(m_source, 1);
    foot->addWidget(m_averages, 1);
    keyColumn->addLayout(foot);

    m_trouble = plainLabel();
    m_trouble->setObjectName(QStringLiteral("trouble"));
    m_trouble->setWordWrap(true);
    m_trouble->hide();

    auto* bay = new QWidget;
    auto* column = new QVBoxLayout(bay);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(12);
    column->addWidget(m_trouble);
    column->addWidget(m_strip);
    auto* row = new QHBoxLayout;
    row->setSpacing(2 * size::grid);
    QVBoxLayout* stage = nullptr;
    row->addWidget(headedPanel({}, stage), 13);
    m_now = new NowView;
    stage->addWidget(m_now, 1);
    QVBoxLayout* beside = nullptr;
    row->addWidget(headedPanel({}, beside), 7);
    m_side = new BaySide(m_actions);
    beside->addWidget(m_side);
    column->addLayout(row, 1);
    column->addWidget(keyPanel);

    m_lay = new LayView;
    m_body = new QStackedWidget;
    m_body->addWidget(bay);
    m_body->addWidget(m_lay);
    m_shots = new ShotList(m_hand, m_bay);
    m_body->addWidget(m_shots);
    auto* outer = new QVBoxLayout(this);
    outer->setContentsMargins(0, 0, 0, 0);
    outer->addWidget(m_body);
}

void BayPage::wire() {
    connect(&m_hand, &TestInHand::replaced, this, &BayPage::testChanged);
    connect(&m_bay, &BayRun::changed, this, &BayPage::shotsChanged);
    connect(&m_declaring, &Declaring::changed, this, &BayPage::markStale);
    connect(&m_book, &Book::unitsChanged, this, &BayPage::markStale);
    connect(&m_bay, &BayRun::storageTroubled, this, [this](const QString& sentence) {
        m_trouble->setText(sentence);
        m_trouble->setVisible(!sentence.isEmpty());
    });
    connect(&m_actions, &BayActions::complained, this, &BayPage::complained);
    connect(&m_actions, &BayActions::readingRequested, this, &BayPage::readingRequested);
    connect(&m_actions, &BayActions::conditionsRequested, this, &BayPage::showConditions);
    connect(&m_actions, &BayActions::changed, this, &BayPage::markStale);
    connect(&m_actions, &BayActions::asking, this, [this] { m_bottom->setCurrentWidget(m_ask); });
    connect(m_keys, &KeyRow::pressed, this, [this](int key) { act(key, Qt::NoModifier); });
    connect(m_ask, &AskBar::done, this, [this] {
        m_bottom->setCurrentWidget(m_keys);
        takeFocus();
    });
    connect(m_side, &BaySide::entered, this, [this](const record::Readings& readings) {
        m_bay.arrive({{.readings = readings}});
        // Where keys are asked for, and no number, they are not the field's.
        const auto phase = m_bay.stand().phase();
        if (phase == bay::Phase::nameTag || phase == bay::Phase::handOver)
            setFocus();
    });
    connect(m_side, &BaySide::left, this, &BayPage::takeFocus);
    connect(m_side, &BaySide::figureTyped, this, &BayPage::takeClubTyped);
    connect(m_averages, &AveragesLine::reckoned, this, &BayPage::markStale);
    connect(m_shots, &ShotList::complained, this, &BayPage::complained);
    connect(m_shots, &ShotList::left, this, &BayPage::leaveLaying);
    connect(m_shots, &ShotList::left, this, &BayPage::shotsLeft);
    connect(m_lay, &LayView::laid, this, [this](const std::string& testId) {
        if (!m_hand.has() || m_hand.test().id != testId)
            return;
        m_body->setCurrentWidget(m_lay);
        m_lay->takeFocus();
    });
    connect(m_lay, &LayView::accepted, &m_actions, &BayActions::keepLaid);
    connect(m_lay, &LayView::accepted, this, &BayPage::leaveLaying);
    connect(m_lay, &LayView::left, this, &BayPage::leaveLaying);
    connect(&m_tick, &QTimer::timeout, this, &BayPage::tick);
    m_tick.start(250);
}

void BayPage::wireSources() {
    connect(&m_server, &MonitorServer::statusChanged, this, &BayPage::markStale);
    connect(&m_server, &MonitorServer::complained, this, &BayPage::complained);
    connect(&m_server, &MonitorServer::asksToEnter, this, &BayPage::askWhetherToLetIn);
    connect(&m_folder, &WatchedFolder::statusChanged, this, &BayPage::markStale);
    connect(&m_folder, &WatchedFolder::complained, this, &BayPage::complained);
    connect(m_side, &BaySide::linkChanged, this, [this](const LinkSettings& settings) {
        settings.keep();
        m_server.listen(settings);
    });
    connect(&m_standIn, &StandIn::changed, this, &BayPage::stateChanged);
}

// Shots are somebody's word: whose is asked once, and never in the middle of another answer.
void BayPage::askWhetherToLetIn(const QString& device) {
    if (m_ask->isAsking() || (isVisible() && qobject_cast<QLineEdit*>(focusWidget()) != nullptr))
        return; // the status line says that it waits
    m_bottom->setCurrentWidget(m_ask);
    m_ask->askChoice(device.isEmpty() ? tr("A monitor without a name wants to send shots. Let it?")
                                      : tr("A monitor called “%1” wants to send shots. Let it?").arg(device),
                     {tr("let it, now and later"), tr("keep it out")},
                     [this, device](int answer) { answer == 0 ? m_server.letIn(device) : m_server.keepOut(device); });
}

void BayPage::testChanged() {
    m_entered.clear();
    m_actions.begin();
    m_body->setCurrentIndex(0);
    m_ask->leave();
    m_folder.stop();
    m_averages->forget();
    markStale();
    if (isVisible())
        enter();
}

void BayPage::enter() {
    if (!m_hand.has())
        return;
    if (m_hand.isKept() && m_hand.test().stage != record::Stage::test && m_hand.test().builds.empty())
        m_declaring.change(tr("a first club"),
                           [](record::Declared& empty) { empty.builds.push_back({.name = bay::freeClubName(empty)}); });
    const auto& test = m_hand.test();
    if (m_entered != test.id && m_bay.takesShots()) {
        m_entered = test.id;
        m_actions.begin();
        m_server.listen(LinkSettings::kept());
        m_folder.goOn();
        QSettings().setValue(QStringLiteral("bay/under_way"),
                             QStringList{m_book.path(), QString::fromStdString(test.id)});
        if (const QString resumed = resumedWords(m_actions.situation()); !resumed.isEmpty())
            m_bay.note(resumed);
        m_averages->soon();
    }
    markStale();
}

void BayPage::takeFocus() {
    if (m_body->currentWidget() == m_shots)
        m_shots->takeFocus();
    else
        setFocus();
}

QString BayPage::subtitle() const {
    return m_hand.has() ? courseLine(m_hand.test(), m_bay.stand(), m_earlier) : QString();
}

void BayPage::shotsChanged(std::size_t from) {
    if (m_actions.shotsChanged(from) == BayActions::News::shot) {
        const Situation now = m_actions.situation();
        const record::Shot* last = now.last.in(now.test);
        const auto phase = now.stand.phase();
        if (const std::string other = words::somebodyElse(now.test, m_book.units());
            !other.empty() && maySeeAverages(now.test, Eyes::fitter))
            emit complained(QString::fromStdString(other));
        if (last != nullptr && !bay::isRead(*last))
            m_cues.play(Cue::noReading);
        else if (phase == bay::Phase::done)
            m_cues.play(Cue::done);
        else if (phase == bay::Phase::handOver || phase == bay::Phase::nameTag)
            m_cues.play(Cue::handOver);
        else
            m_cues.play(Cue::shotKept);
    }
    m_averages->soon();
    markStale();
    emit stateChanged();
}

void BayPage::refresh() {
    if (!m_hand.has())
        return;
    const Situation now = m_actions.situation();
    NowPicture picture =
        now.anotherVisit ? anotherVisitPicture(now.test, now.stand) : nowPicture(now, m_book.units(), Eyes::fitter);
    if (!m_hand.isKept()) {
        picture.caption = tr("Not in a logbook yet");
        picture.name = tr("Save it first");
        picture.count = tr("Ctrl+S");
    }
    if (!picture.last.isEmpty() && maySeeAverages(now.test, Eyes::fitter))
        picture.soFar = soFarWords(now, m_averages->soFar(), m_book.units());
    if (m_actions.isResting()) {
        const int left = static_cast<int>(now.test.plan.restSeconds - m_actions.secondsRested());
        picture.below =
            left > 0 ? tr("resting, %1:%2 left; R ends it").arg(left / 60).arg(left % 60, 2, 10, QLatin1Char('0'))
                     : tr("rested; R ends it");
    }
    m_now->setPicture(picture);
    m_keys->setEntries(m_hand.isKept() ? keysFor(now) : QList<KeyRow::Entry>{});
    m_strip->refresh(now, m_bay.tally());
    m_side->refresh(now, m_book.units());
    m_side->showLink(m_server.isListening() ? m_server.settings() : LinkSettings::kept(), m_server.status());
    refreshStatus(now);
    if (playerWindowShows())
        m_playerWindow->setPicture(nowPicture(now, m_book.units(), Eyes::player),
                                   courseLine(now.test, now.stand, m_earlier));
}

void BayPage::refreshStatus(const Situation& now) {
    QStringList parts{m_server.status()};
    if (const QString folder = m_folder.status(); !folder.isEmpty())
        parts << folder;
    if (now.stand.phase() == bay::Phase::noPlan)
        parts = QStringList{tr("The Clubs page takes the clubs, the Plan makes the order.")};
    m_source->setText(parts.join(QStringLiteral("  ")));
    QPalette palette = m_trouble->palette();
    palette.setColor(QPalette::WindowText, colours().alarm);
    m_trouble->setPalette(palette);
}

// Four times a second while something on the page depends on time.
void BayPage::tick() {
    if (!isVisible() || !m_hand.has())
        return;
    if (m_actions.isResting() && !m_restOver && m_actions.secondsRested() >= m_hand.test().plan.restSeconds) {
        m_restOver = true;
        m_cues.play(Cue::restOver);
    }
    if (!m_actions.isResting())
        m_restOver = false;
    if (m_actions.waitsForNumber() || m_actions.isResting())
        markStale();
}

void BayPage::turnTo(BaySide::Side side) {
    m_side->turnTo(side);
    markStale();
}

void BayPage::typeShot(const QString& typed) {
    m_side->typeShot(typed);
    markStale();
}

void BayPage::feel() {
    if (bay::stintInQuestion(m_hand.test()))
        turnTo(BaySide::Side::feel);
}

bool BayPage::event(QEvent* event) {
    // Keys of the bay come before the window's own shortcuts for the same.
    if (event->type() == QEvent::ShortcutOverride) {
        auto* key = static_cast<QKeyEvent*>(event);
        const bool ours =
            key->key() == Qt::Key_Escape && (m_ask->isAsking() || m_side->side() != BaySide::Side::shot || !hasFocus());
        const bool undo = key->key() == Qt::Key_Z && key->modifiers().testFlag(Qt::ControlModifier);
        if (ours || undo) {
            event->accept();
            return true;
        }
    }
    return Page::event(event);
}

void BayPage::keyPressEvent(QKeyEvent* event) {
    if (act(event->key(), event->modifiers()))
        return;
    const QString typed = event->text();
    const bool isMark = (typed == QLatin1String(".") || typed == QLatin1String(",")) && m_figures.goesOn();
    const bool begins = !typed.isEmpty() && (typed[0].isDigit() || typed[0] == QLatin1Char('-') || isMark) &&
                        event->modifiers() == Qt::NoModifier;
    if (begins && m_bay.takesShots() && m_body->currentIndex() == 0) {
        const QString shot = m_figures.take(typed);
        return shot.isEmpty() ? void() : typeShot(shot);
    }
    Page::keyPressEvent(event);
}

// One or two figures and Enter.
void BayPage::takeClubTyped(int number) {
    if (m_bay.stand().as<bay::Free>() == nullptr || !m_actions.hands().takeClub(number))
        return emit complained(tr("A shot has three figures or a decimal point; H types any other."));
    m_side->turnTo(BaySide::Side::shot);
    m_side->clearShot();
    takeFocus();
}

bool BayPage::act(int key, Qt::KeyboardModifiers modifiers) {
    if (!m_hand.has() || m_body->currentIndex() != 0)
        return false;
    const bool control = modifiers.testFlag(Qt::ControlModifier);
    const bool shift = modifiers.testFlag(Qt::ShiftModifier);
    if ((key == Qt::Key_Z && control) || (key == Qt::Key_U && shift)) {
        if (shift)
            m_bay.redo();
        else
            m_bay.undo();
        return true;
    }
    if (control || modifiers.testFlag(Qt::AltModifier))
        return false;
    if (key == Qt::Key_Escape) {
        turnTo(BaySide::Side::shot);
        takeFocus();
        return true;
    }
    if (!m_bay.takesShots())
        return false;
    const Situation now = m_actions.situation();
    const auto* striking = now.stand.as<bay::Striking>();
    if (key == Qt::Key_PageDown) // the one button: what is due, else the player's call
        key = striking != nullptr && striking->confirmed ? Qt::Key_Space : Qt::Key_Return;
    if (key == Qt::Key_PageUp)
        key = Qt::Key_Space;
    if (key == Qt::Key_Enter)
        key = Qt::Key_Return;
    const BayCommand* command = commandFor(key, shift && key != Qt::Key_Plus, now);
    if (command != nullptr)
        command->run(*this);
    // A key of the bay that means nothing now does nothing, and is nobody else's.
    const bool isDigit = key >= Qt::Key_0 && key <= Qt::Key_9;
    return command != nullptr ||
           (!isDigit && std::ranges::any_of(bayCommands(), [&](const BayCommand& c) { return c.key == key; }));
}

bool BayPage::playerWindowShows() const {
    return m_playerWindow != nullptr && m_playerWindow->isVisible();
}

void BayPage::togglePlayerWindow() {
    if (m_playerWindow == nullptr)
        m_playerWindow = new PlayerWindow;
    m_playerWindow->setVisible(!m_playerWindow->isVisible());
    if (m_playerWindow->isVisible())
        window()->activateWindow(); // the keys stay here
    markStale();
    emit stateChanged();
}

void BayPage::toggleStandIn() {
    if (m_standIn.runs())
        return m_standIn.stop();
    m_server.letIn(QStringLiteral("Simulated monitor"));
    if (!m_standIn.start(m_server.port(), m_server.settings().code))
        emit complained(tr("knotcount-monitor is not beside this program. Build or install it, then try again."));
}

void BayPage::toggleSounds() {
    m_cues.turn(!m_cues.isOn());
    if (m_cues.isOn() && !m_cues.canPlay())
        emit complained(tr("No sound player was found (pw-play, paplay or aplay), so nothing will be heard."));
    m_cues.play(Cue::shotKept);
    emit stateChanged();
}

void BayPage::watchFolder(const QString& folder) {
    m_folder.watch(folder);
    emit stateChanged();
}

void BayPage::stopWatching() {
    m_folder.stop();
    emit stateChanged();
}

void BayPage::layShots(const QString& file, std::vector<record::Shot> shots) {
    if (!m_hand.isKept() || m_hand.test().turns.empty())
        return emit complained(
            tr("A file is matched to a plan, and this test has none. Add its shots instead (File menu)."));
    m_lay->layShots(m_hand.test(), file, std::move(shots), m_book.units());
}

void BayPage::leaveLaying() {
    m_body->setCurrentIndex(0);
    takeFocus();
}

void BayPage::showShots() {
    if (!m_hand.isKept() || m_hand.test().shots.empty())
        return emit complained(tr("No shot was struck yet; there is nothing to put right."));
    m_shots->open(m_book.units());
    m_body->setCurrentWidget(m_shots);
    m_shots->takeFocus();
}

} // namespace knot::app
