#include "app/bay_page/bay_page.h"

#include "app/bay_page/ask_bar.h"
#include "app/bay_page/feel_view.h"
#include "app/bay_page/hand_entry.h"
#include "app/bay_page/lay_view.h"
#include "app/bay_page/player_window.h"
#include "app/bay_page/side_forms.h"
#include "app/form/panel.h"
#include "app/picture/strip_view.h"
#include "app/session.h"
#include "app/style/fonts.h"
#include "app/style/palette.h"
#include "core/record/number_text.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QScrollArea>
#include <QScrollBar>
#include <QSettings>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace knot::app {
namespace {

constexpr int callSeconds = 3; // a number waits so long for the player's call
constexpr int stripHeight = 92;

} // namespace

BayPage::BayPage(Session& session, QWidget* parent)
    : QWidget(parent)
    , m_session(session)
    , m_server(session)
    , m_folder(session) {
    setObjectName(QStringLiteral("bayPage"));
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Bay"));
    buildUi();
    wire();
}

BayPage::~BayPage() {
    m_standIn.disconnect(this);
    m_standIn.kill();
    m_standIn.waitForFinished(500);
    delete m_playerWindow;
}

void BayPage::buildUi() {
    m_strip = new StripView;
    m_strip->setObjectName(QStringLiteral("bayStrip"));
    m_strip->setChangeable(false);
    m_strip->setFocusPolicy(Qt::NoFocus);
    m_stripArea = scrolling(m_strip);
    m_stripArea->setMaximumHeight(stripHeight);
    m_stripArea->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);

    QVBoxLayout* keyColumn = nullptr;
    auto* keyPanel = headedPanel({}, keyColumn);
    m_keys = new KeyRow;
    m_ask = new AskBar;
    m_bottom = new QStackedWidget;
    m_bottom->addWidget(m_keys);
    m_bottom->addWidget(m_ask);
    m_bottom->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    keyColumn->addWidget(m_bottom, 0, Qt::AlignTop);
    auto* foot = new QHBoxLayout;
    m_source = captionLabel("source");
    m_source->setWordWrap(false);
    m_averages = captionLabel("averages");
    m_averages->setWordWrap(false);
    foot->addWidget(m_source);
    foot->addStretch();
    foot->addWidget(m_averages);
    keyColumn->addLayout(foot);

    m_trouble = new QLabel;
    m_trouble->setObjectName(QStringLiteral("trouble"));
    m_trouble->setWordWrap(true);
    m_trouble->hide();

    auto* bay = new QWidget;
    auto* column = new QVBoxLayout(bay);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(12);
    column->addWidget(m_trouble);
    column->addWidget(m_stripArea);
    auto* row = new QHBoxLayout;
    row->setSpacing(2 * size::grid);
    row->addWidget(buildStage(), 13);
    row->addWidget(buildSide(), 7);
    column->addLayout(row, 1);
    column->addWidget(keyPanel);

    m_lay = new LayView;
    m_body = new QStackedWidget;
    m_body->addWidget(bay);
    m_body->addWidget(m_lay);
    auto* outer = new QVBoxLayout(this);
    outer->setContentsMargins(0, 0, 0, 0);
    outer->addWidget(m_body);
}

QWidget* BayPage::buildStage() {
    QVBoxLayout* column = nullptr;
    auto* panel = headedPanel({}, column);
    m_now = new NowView;
    column->addWidget(m_now, 1);
    return panel;
}

QWidget* BayPage::buildSide() {
    QVBoxLayout* column = nullptr;
    auto* panel = headedPanel({}, column);
    m_side = new QStackedWidget;
    column->addWidget(m_side);

    auto* shot = new QWidget;
    auto* shotColumn = new QVBoxLayout(shot);
    shotColumn->setContentsMargins(0, 0, 0, 0);
    shotColumn->addWidget(headingLabel(tr("Where on the face?")));
    m_face = new FaceView;
    shotColumn->addWidget(m_face, 3);
    m_entry = new HandEntry;
    auto* entryArea = scrolling(m_entry);
    shotColumn->addWidget(entryArea, 2);
    m_side->addWidget(shot);

    auto* feel = new QWidget;
    auto* feelColumn = new QVBoxLayout(feel);
    feelColumn->setContentsMargins(0, 0, 0, 0);
    m_feelHeading = headingLabel(tr("How did it feel?"));
    feelColumn->addWidget(m_feelHeading);
    m_feel = new FeelView;
    feelColumn->addWidget(m_feel);
    m_feelWords = new QLineEdit;
    m_feelWords->setPlaceholderText(tr("in your words (Tab)"));
    m_feelWords->setObjectName(QStringLiteral("feelWords"));
    m_feelWords->setAccessibleName(tr("How it felt, in words"));
    feelColumn->addWidget(m_feelWords);
    feelColumn->addStretch();
    m_side->addWidget(feel);

    m_conditions = new ConditionsForm;
    m_side->addWidget(m_conditions);
    m_link = new LinkForm;
    m_side->addWidget(m_link);
    return panel;
}

void BayPage::wire() {
    connect(&m_session, &Session::bayChanged, this, &BayPage::shotsChanged);
    connect(&m_session, &Session::declarationChanged, this, &BayPage::refresh);
    connect(&m_session, &Session::unitsChanged, this, &BayPage::refresh);
    connect(&m_session, &Session::testChanged, this, [this] {
        m_entered.clear();
        m_last.reset();
        m_called = false;
        m_resting.invalidate();
        m_body->setCurrentIndex(0);
        m_ask->leave();
        m_folder.stop();
        if (isVisible())
            enter();
    });
    connect(&m_session, &Session::storageTroubled, this, [this](const QString& sentence) {
        m_trouble->setText(sentence);
        m_trouble->setVisible(!sentence.isEmpty());
    });
    connect(&m_server, &MonitorServer::statusChanged, this, &BayPage::refresh);
    connect(&m_server, &MonitorServer::complained, this, &BayPage::complained);
    connect(&m_folder, &WatchedFolder::statusChanged, this, &BayPage::refresh);
    connect(&m_folder, &WatchedFolder::complained, this, &BayPage::complained);
    connect(m_keys, &KeyRow::pressed, this, [this](int key) { act(key, Qt::NoModifier); });
    connect(m_ask, &AskBar::done, this, [this] {
        m_bottom->setCurrentWidget(m_keys);
        takeFocus();
    });
    connect(m_face, &FaceView::struck, this, [this](FaceView::Strike strike) {
        if (!m_last)
            return;
        m_session.inBay(tr("a strike point"), *m_last, [&](record::Test& test) {
            test.shots[*m_last].readings.measure(record::Metric::strikeToe, strike.toe);
            test.shots[*m_last].readings.measure(record::Metric::strikeHigh, strike.high);
            return *m_last;
        });
    });
    connect(m_entry, &HandEntry::entered, this, [this](const record::Readings& readings) {
        m_session.arrive({{.readings = readings, .at = {}, .readId = {}, .reason = {}}});
    });
    connect(m_entry, &HandEntry::left, this, &BayPage::takeFocus);
    connect(m_feel, &FeelView::scored, this, [this](std::size_t scale, int score) {
        if (const auto stint = bay::lastStint(m_session.test()))
            m_session.inBay(tr("a feel"), [&](record::Test& test) {
                auto feel = bay::feelOf(test, *stint);
                feel.scores[scale] = score;
                bay::setFeel(test, feel);
            });
    });
    connect(m_feel, &FeelView::left, this, &BayPage::takeFocus);
    connect(m_feelWords, &QLineEdit::textEdited, this, [this](const QString& text) {
        if (const auto stint = bay::lastStint(m_session.test()))
            m_session.typeInBay(tr("words about a stint"), [&](record::Test& test) {
                auto feel = bay::feelOf(test, *stint);
                feel.words = text.toStdString();
                bay::setFeel(test, feel);
            });
    });
    m_feelWords->installEventFilter(this);
    connect(m_conditions, &ConditionsForm::changed, this, [this](const record::Conditions& conditions) {
        const std::string now = m_session.bayNow().toStdString();
        m_session.typeInBay(tr("the conditions"), [&](record::Test& test) {
            if (test.sittings.empty())
                bay::beginSitting(test, now);
            test.sittings.back().conditions = conditions;
        });
    });
    connect(m_link, &LinkForm::changed, this, [this](const LinkSettings& settings) {
        settings.keep();
        m_server.listen(settings);
    });
    connect(m_lay, &LayView::accepted, this, [this](const bay::Laying& laying) {
        const QString now = m_session.bayNow();
        const std::string sitting = laying.shots().empty() || laying.shots().front().takenAt.size() < 10
                                        ? now.left(10).toStdString()
                                        : laying.shots().front().takenAt.substr(0, 10);
        m_session.inBay(tr("a file laid on the plan"), m_session.test().shots.size(), [&](record::Test& test) {
            const std::size_t from = test.shots.size();
            test = laying.applied(std::move(test), sitting);
            return from;
        });
        m_body->setCurrentIndex(0);
        takeFocus();
    });
    connect(m_lay, &LayView::left, this, [this] {
        m_body->setCurrentIndex(0);
        takeFocus();
    });
    connect(&m_tick, &QTimer::timeout, this, &BayPage::tick);
    connect(&m_standIn, &QProcess::stateChanged, this, &BayPage::stateChanged);
    m_tick.start(250);
}

// Enter in the words about a stint ends them, and is no hand-over.
bool BayPage::eventFilter(QObject* watched, QEvent* event) {
    if (watched == m_feelWords && event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Return || key == Qt::Key_Enter) {
            takeFocus();
            return true;
        }
    }
    return QWidget::eventFilter(watched, event);
}

void BayPage::enter() {
    if (!m_session.hasTest())
        return;
    const auto& test = m_session.test();
    if (m_session.isKept() && test.stage != record::Stage::test && test.builds.empty())
        m_session.inBay(tr("a first club"), [](record::Test& empty) { empty.builds.push_back({.name = "own club"}); });
    if (m_entered != test.id && m_session.takesShots()) {
        m_entered = test.id;
        m_count = test.shots.size();
        m_last.reset();
        if (!test.sittings.empty() && !test.shots.empty() && test.shots.back().sitting == test.sittings.back().label)
            m_last = test.shots.size() - 1;
        m_sinceLast.invalidate();
        m_server.listen(LinkSettings::kept());
        m_folder.goOn();
        QSettings().setValue(QStringLiteral("bay/under_way"),
                             QStringList{m_session.logbookPath(), QString::fromStdString(test.id)});
        sayResumed();
    }
    refresh();
}

// After an end that nobody wanted, the test goes on where it stood, and says so.
void BayPage::sayResumed() {
    const auto& test = m_session.test();
    const bay::Stand stand = bay::standOf(test);
    if (test.sittings.empty() || stand.phase == bay::Phase::done || stand.phase == bay::Phase::free || isAnotherVisit())
        return;
    const QString kept = tr("Everything struck is here.");
    if (stand.phase == bay::Phase::warmUp)
        emit m_session.noted(
            tr("Resumed in the warm-up, after %1. %2")
                .arg(QString::fromStdString(record::counted(static_cast<std::size_t>(stand.warmUp), "swing")), kept));
    else
        emit m_session.noted(tr("Resumed in lap %1: %2, shot %3 of %4. %5")
                                 .arg(stand.round)
                                 .arg(stand.drawn ? tr("an unseen club") : nameOf(test, stand.build))
                                 .arg(stand.shot)
                                 .arg(stand.shots)
                                 .arg(kept));
}

bool BayPage::isAnotherVisit() {
    const auto& test = m_session.test();
    return m_session.takesShots() && test.stage == record::Stage::test &&
           bay::isAnotherVisit(test, m_session.bayNow().toStdString());
}

void BayPage::takeFocus() {
    setFocus();
}

void BayPage::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    refresh();
}

QString BayPage::subtitle() const {
    return m_session.hasTest() ? courseLine(m_session.test(), bay::standOf(m_session.test())) : QString();
}

int BayPage::secondsToNumber() const {
    const auto& test = m_session.test();
    if (!m_sinceLast.isValid() || !maySeeShots(test, Eyes::fitter) || !m_last ||
        test.shots[*m_last].status != record::ShotStatus::counted || test.stage != record::Stage::test ||
        test.card.setAsideRule == record::SetAsideRule::keepAll)
        return 0;
    const qint64 left = callSeconds * 1000 - m_sinceLast.elapsed();
    return left > 0 ? static_cast<int>((left + 999) / 1000) : 0;
}

LastShot BayPage::lastShot() const {
    LastShot last{.shot = {}, .called = m_called};
    if (m_last && *m_last < m_session.test().shots.size()) {
        last.shot = m_last;
        last.secondsToNumber = secondsToNumber();
    }
    return last;
}

void BayPage::shotsChanged(std::size_t from) {
    const auto& test = m_session.test();
    const bay::Stand stand = bay::standOf(test);
    if (test.shots.size() > m_count) {
        m_last = std::min(from, test.shots.size() - 1);
        if (test.shots.size() > m_count + 1)
            m_last = test.shots.size() - 1;
        m_sinceLast.start();
        m_count = test.shots.size();
        if (m_called) {
            m_called = false;
            const std::size_t shot = *m_last;
            m_session.inBay(tr("a call"), shot, [&](record::Test& changed) {
                return bay::setAside(changed, shot, record::SetAsideWhen::called, tr("called").toStdString());
            });
            return; // which comes back here
        }
        const bool read = bay::isRead(test.shots[*m_last]);
        m_cues.play(!read                                                                       ? Cue::noReading
                    : stand.phase == bay::Phase::done                                           ? Cue::done
                    : stand.phase == bay::Phase::handOver || stand.phase == bay::Phase::nameTag ? Cue::handOver
                                                                                                : Cue::shotKept);
    } else if (test.shots.size() < m_count) {
        m_count = test.shots.size();
        m_last = m_count > 0 ? std::optional(m_count - 1) : std::nullopt;
        m_sinceLast.invalidate();
    }
    refresh();
    emit stateChanged();
}

void BayPage::refresh() {
    if (!m_session.hasTest() || !isVisible())
        return;
    const auto& test = m_session.test();
    const bay::Stand stand = bay::standOf(test);
    const LastShot last = lastShot();
    NowPicture now = nowPicture(test, stand, last, m_session.units(), Eyes::fitter);
    if (!m_session.isKept()) {
        now.caption = tr("Not in a logbook yet");
        now.name = tr("Keep it first");
        now.count = tr("Ctrl+S");
    }
    if (m_resting.isValid()) {
        const int left = static_cast<int>(test.plan.restSeconds - static_cast<double>(m_resting.elapsed()) / 1000);
        now.below = left > 0
                        ? tr("resting, %1:%2 left; R ends it").arg(left / 60).arg(left % 60, 2, 10, QLatin1Char('0'))
                        : tr("rested; R ends it");
    }
    QList<KeyRow::Entry> keys = m_session.isKept() ? keysFor(test, stand, last) : QList<KeyRow::Entry>{};
    if (stand.phase != bay::Phase::done && isAnotherVisit()) {
        now = anotherVisitPicture(test, stand);
        keys = {{Qt::Key_Return, QStringLiteral("Enter"), tr("begin a sitting"), tr("with its own warm-up"), true},
                {Qt::Key_G, QStringLiteral("G"), tr("guess"), tr("which one was that?"), false},
                {Qt::Key_F, QStringLiteral("F"), tr("feel"), tr("how was that stint?"), false}};
    }
    m_now->setPicture(now);
    m_keys->setEntries(keys);
    refreshStrip(stand);
    refreshSide(stand);
    refreshStatus(stand);
    if (m_playerWindow != nullptr && m_playerWindow->isVisible())
        m_playerWindow->setPicture(nowPicture(test, stand, last, m_session.units(), Eyes::player),
                                   courseLine(test, stand));
}

void BayPage::refreshStrip(const bay::Stand& stand) {
    const auto& test = m_session.test();
    const bool planned = test.stage == record::Stage::test && !test.plan.turns.empty();
    m_stripArea->setVisible(planned);
    if (!planned)
        return;
    QStringList names;
    for (std::size_t i = 0; i < test.builds.size(); ++i)
        names << nameOf(test, i);
    m_strip->setPlan(test.plan.turns, names);
    // Alone nobody knows the clubs to come, and the strip must not tell.
    std::optional<std::size_t> knownTurns;
    if (stand.drawn)
        knownTurns = stand.turn;
    else if (test.card.alone && stand.phase == bay::Phase::warmUp)
        knownTurns = static_cast<std::size_t>(test.progress.named);
    m_strip->setProgress(bay::filledTurns(test), stand.turn, knownTurns);
    m_stripArea->setFixedHeight(std::min(stripHeight, m_strip->heightForWidth(m_stripArea->viewport()->width())));
    if (stand.turn)
        m_stripArea->ensureVisible(0, m_strip->turnY(*stand.turn), 0, 46);
}

void BayPage::refreshSide(const bay::Stand& stand) {
    const auto& test = m_session.test();
    m_face->setFace(picture::faceKind(test), test.profile.leftHanded ? picture::Toe::right : picture::Toe::left);
    std::vector<FaceView::Strike> earlier;
    std::optional<FaceView::Strike> strike;
    if (m_last && *m_last < test.shots.size()) {
        const auto& newest = test.shots[*m_last];
        for (std::size_t i = test.shots.size(); i-- > 0 && test.shots.size() - i <= bay::reach;) {
            const auto& shot = test.shots[i];
            const auto toe = shot.readings.at(record::Metric::strikeToe);
            const auto high = shot.readings.at(record::Metric::strikeHigh);
            if (!toe || !high || shot.turn != newest.turn || shot.sitting != newest.sitting)
                continue;
            if (i == *m_last)
                strike = FaceView::Strike{*toe, *high};
            else
                earlier.push_back({*toe, *high});
        }
        // Alone the colour of an unseen club's knot would tell it.
        m_face->setStrikes(earlier, strike, bay::isUnnamed(test, newest) ? test.builds.size() : newest.build);
    } else {
        m_face->setStrikes({}, std::nullopt, stand.build);
    }
    m_face->setChangeable(m_last.has_value());
    m_entry->setMetrics(firstMetrics(test.card), m_session.units());
    if (const auto stint = bay::lastStint(test)) {
        const auto feel = bay::feelOf(test, *stint);
        m_feel->setScores(feel.scores);
        if (!m_feelWords->hasFocus())
            m_feelWords->setText(QString::fromStdString(feel.words));
        const bool unnamed = stand.drawn && test.progress.named < static_cast<int>(stand.turn.value_or(0)) + 1;
        m_feelHeading->setText(unnamed ? tr("How did it feel?")
                                       : tr("How did %1 feel?").arg(nameOf(test, stint->build)));
    }
    m_conditions->show(test.sittings.empty() ? record::Conditions{} : test.sittings.back().conditions);
    m_link->show(m_server.isListening() ? m_server.settings() : LinkSettings::kept(), m_server.status());
}

void BayPage::refreshStatus(const bay::Stand& stand) {
    QStringList parts{m_server.status()};
    if (const QString folder = m_folder.status(); !folder.isEmpty())
        parts << folder;
    if (stand.phase == bay::Phase::noPlan)
        parts = QStringList{tr("The Rack takes the clubs, the Plan makes the order.")};
    m_source->setText(parts.join(QStringLiteral("  ")));
    m_averages->setText(averagesLine(m_session.test(), m_session.units()));
    m_trouble->setStyleSheet(QStringLiteral("color: %1").arg(colours().alarm.name()));
}

// Four times a second while something on the page depends on time.
void BayPage::tick() {
    if (!isVisible() || !m_session.hasTest())
        return;
    const bool waits = m_sinceLast.isValid() && m_sinceLast.elapsed() < callSeconds * 1000 + 600;
    if (m_resting.isValid() && !m_restOver &&
        static_cast<double>(m_resting.elapsed()) / 1000 >= m_session.test().plan.restSeconds) {
        m_restOver = true;
        m_cues.play(Cue::restOver);
    }
    if (waits || m_resting.isValid())
        refresh();
}

void BayPage::showSide(Side side) {
    m_side->setCurrentIndex(static_cast<int>(side));
    refresh();
}

} // namespace knot::app
