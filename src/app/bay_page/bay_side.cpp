#include "app/bay_page/bay_side.h"

#include "app/bay_page/bay_actions.h"
#include "app/bay_page/bay_words.h"
#include "app/bay_page/entry/feel_view.h"
#include "app/bay_page/entry/hand_entry.h"
#include "app/bay_page/keys/commands.h"
#include "app/bay_page/landing_sketch.h"
#include "app/bay_page/said_actions.h"
#include "app/bay_page/side_forms.h"
#include "app/form/panel.h"
#include "app/form/typed.h"
#include "app/style/labels.h"
#include "core/bay/hand.h"
#include "core/bay/said.h"

#include <QKeyEvent>
#include <QLineEdit>
#include <QScrollArea>
#include <QVBoxLayout>

namespace knot::app {
namespace {

QVBoxLayout* columnIn(QWidget* widget) {
    auto* column = new QVBoxLayout(widget);
    column->setContentsMargins(0, 0, 0, 0);
    return column;
}

} // namespace

BaySide::BaySide(BayActions& actions, QWidget* parent)
    : QStackedWidget(parent)
    , m_actions(actions) {
    addWidget(buildShot());
    addWidget(buildFeel());
    m_conditions = new ConditionsForm;
    addWidget(m_conditions);
    m_link = new LinkForm;
    addWidget(m_link);
    addWidget(buildHelp());
    wire();
}

QWidget* BaySide::buildShot() {
    auto* shot = new QWidget;
    auto* column = columnIn(shot);
    column->addWidget(headingLabel(tr("Where on the face?")));
    m_face = new FaceView;
    column->addWidget(m_face, 3);
    m_landing = new LandingSketch;
    column->addWidget(m_landing, 3);
    m_entry = new HandEntry;
    column->addWidget(scrolling(m_entry), 2);
    return shot;
}

QWidget* BaySide::buildFeel() {
    auto* feel = new QWidget;
    auto* column = columnIn(feel);
    m_feelHeading = headingLabel(tr("How did it feel?"));
    m_feelHeading->setObjectName(QStringLiteral("feelHeading"));
    m_feelHeading->setWordWrap(true);
    column->addWidget(m_feelHeading);
    m_feel = new FeelView;
    column->addWidget(scrolling(m_feel), 1);
    m_feelWords = new QLineEdit;
    m_feelWords->setPlaceholderText(tr("in your words (Tab)"));
    m_feelWords->setObjectName(QStringLiteral("feelWords"));
    m_feelWords->setAccessibleName(tr("How it felt, in words"));
    m_feelWords->installEventFilter(this);
    column->addWidget(m_feelWords);
    return feel;
}

QWidget* BaySide::buildHelp() {
    auto* help = new QWidget;
    auto* column = columnIn(help);
    column->addWidget(headingLabel(tr("Keys in the bay")));
    QString lines;
    for (const BayCommand& command : bayCommands())
        if (command.key != 0 && command.help[0] != '\0')
            lines += QStringLiteral("<tr><td><b>%1</b>&nbsp;&nbsp;</td><td>%2</td></tr>")
                         .arg(QLatin1String(command.cap), tr(command.help).toHtmlEscaped());
    lines += QStringLiteral("<tr><td><b>%1</b>&nbsp;&nbsp;</td><td>%2</td></tr>")
                 .arg(tr("Page Down"), tr("the one button: what is due, or a call").toHtmlEscaped());
    auto* list = captionLabel("bayKeys");
    richLabel(list)->setText(QStringLiteral("<table>%1</table>").arg(lines));
    column->addWidget(scrolling(list), 1);
    return help;
}

void BaySide::wire() {
    connect(m_face, &FaceView::struck, this,
            [this](FaceView::Strike strike) { m_actions.strikeAt(strike.toe, strike.high); });
    connect(m_entry, &HandEntry::entered, this, &BaySide::entered);
    connect(m_entry, &HandEntry::left, this, &BaySide::left);
    connect(m_entry, &HandEntry::figureTyped, this, &BaySide::figureTyped);
    connect(m_feel, &FeelView::scored, &m_actions.said(), &SaidActions::scoreFeel);
    connect(m_feel, &FeelView::left, this, &BaySide::left);
    Typed::in(m_feelWords, [this](const QString& text) { m_actions.said().wordFeel(text); });
    connect(m_conditions, &ConditionsForm::changed, &m_actions, &BayActions::setConditions);
    connect(m_link, &LinkForm::changed, this, &BaySide::linkChanged);
}

// Enter in the words about a stint ends them, and is no hand-over.
bool BaySide::eventFilter(QObject* watched, QEvent* event) {
    if (watched == m_feelWords && event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Return || key == Qt::Key_Enter) {
            emit left();
            return true;
        }
    }
    return QStackedWidget::eventFilter(watched, event);
}

void BaySide::turnTo(Side side) {
    Typed::commitAll();
    setCurrentIndex(static_cast<int>(side));
    if (side == Side::feel)
        m_feel->setFocus();
    if (side == Side::conditions)
        m_conditions->takeFocus();
    if (side == Side::link)
        m_link->takeFocus();
}

void BaySide::typeShot(const QString& typed) {
    turnTo(Side::shot);
    m_entry->begin(typed);
}

void BaySide::clearShot() {
    m_entry->clear();
}

void BaySide::refresh(const Situation& now, const record::DisplayUnits& units) {
    refreshFace(now);
    m_landing->refresh(now, units);
    m_entry->setMetrics(firstMetrics(now.test.card), units);
    refreshFeel(now);
    m_conditions->display(now.test.sittings.empty() ? record::Conditions{} : now.test.sittings.back().present());
}

void BaySide::showLink(const LinkSettings& settings, const QString& status) {
    m_link->display(settings, status);
}

void BaySide::refreshFace(const Situation& now) {
    const auto& test = now.test;
    m_face->setFace(picture::faceKind(test), bay::hitterOf(test).leftHanded ? picture::Toe::right : picture::Toe::left);
    const record::Shot* newest = now.last.in(test);
    m_face->setChangeable(newest != nullptr);
    if (newest == nullptr)
        return m_face->setStrikes({}, std::nullopt, 0);
    std::vector<FaceView::Strike> earlier;
    std::optional<FaceView::Strike> strike;
    for (std::size_t i = test.shots.size(); i-- > 0 && test.shots.size() - i <= bay::reach;) {
        const auto& shot = test.shots[i];
        const auto toe = shot.readings.at(record::Metric::strikeToe);
        const auto high = shot.readings.at(record::Metric::strikeHigh);
        if (!toe || !high || shot.turn != newest->turn || shot.sitting != newest->sitting)
            continue;
        if (shot.id == newest->id)
            strike = FaceView::Strike{*toe, *high};
        else
            earlier.push_back({*toe, *high});
    }
    // Alone the colour of an unseen club's knot would tell it.
    m_face->setStrikes(earlier, strike,
                       bay::isUnnamed(test, *newest) ? test.builds.size() : std::size_t{newest->build});
}

void BaySide::refreshFeel(const Situation& now) {
    const auto stint = bay::stintInQuestion(now.test);
    if (!stint)
        return;
    const auto feel = bay::feelOf(now.test, *stint);
    m_feel->setScores(feel.scores);
    if (!m_feelWords->hasFocus())
        m_feelWords->setText(QString::fromStdString(feel.words));
    const auto* due = now.stand.stint();
    const bool unnamed = due != nullptr && due->drawn && now.test.progress.named < static_cast<int>(due->turn) + 1;
    const bool takenUp = stint != bay::lastStint(now.test);
    const QString name = nameOf(now.test, stint->build);
    m_feelHeading->setText(unnamed   ? tr("How does it feel?")
                           : takenUp ? tr("%1, before its first shot: how does it look and feel?").arg(name)
                                     : tr("How did %1 feel?").arg(name));
}

} // namespace knot::app
