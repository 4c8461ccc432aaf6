#include "app/decision_page/decision_page.h"

#include "app/decision_page/best_view.h"
#include "app/decision_page/reveal_panel.h"
#include "app/form/curtain.h"
#include "app/form/name_button.h"
#include "app/form/panel.h"
#include "app/form/typed.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/judging.h"
#include "app/session/test_in_hand.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/words/decide.h"
#include "core/words/linked_tests.h"
#include "core/words/shot_remarks.h"

#include <QComboBox>
#include <QDateTime>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>
#include <array>

namespace knot::app {
namespace {

using record::Action;
using record::Choices;
using record::Decision;
using record::Said;
using record::Test;

// In the order of their buttons.
constexpr std::array courses = {Action::keep, Action::change,     Action::adjust,
                                Action::mix,  Action::notTheClub, Action::testFurther};

std::string nowText() {
    return QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
}

QWidget* line(const QString& caption, QWidget* field, const char* name) {
    auto* box = new QWidget;
    auto* row = new QHBoxLayout(box);
    row->setContentsMargins(0, 0, 0, 0);
    QLabel* label = captionLabel((QByteArray(name) + "Label").constData(), caption);
    label->setFixedWidth(76);
    label->setBuddy(field);
    field->setObjectName(QLatin1String(name));
    field->setAccessibleName(QString(caption).remove(u'&'));
    row->addWidget(label);
    row->addWidget(field, 1);
    return box;
}

} // namespace

DecisionPage::DecisionPage(const TestInHand& hand, Declaring& declaring, Judging& judging, Book& book)
    : m_hand(hand)
    , m_declaring(declaring)
    , m_judging(judging)
    , m_book(book) {
    QVBoxLayout* rows = scrollingRows(this);
    auto* above = new QHBoxLayout;
    auto* said = new QVBoxLayout;
    for (QBoxLayout* box : {static_cast<QBoxLayout*>(above), static_cast<QBoxLayout*>(said)})
        box->setSpacing(2 * size::grid);
    said->addWidget(buildBefore());
    said->addWidget(buildExpected(), 1);
    above->addLayout(said, 1);
    above->addWidget(buildBet(), 1);
    rows->addLayout(above, 1);
    m_reveal = new RevealPanel(hand, declaring, judging);
    rows->addWidget(m_reveal);
    rows->addWidget(buildDecision());
    wire();
}

QWidget* DecisionPage::buildBefore() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel({}, column);
    panel->setObjectName(QStringLiteral("before"));
    m_beforeHead = headingLabel({});
    column->addWidget(m_beforeHead);
    const struct {
        QString question;
        Said Choices::*member;
        const char* name;
    } questions[] = {{tr("Which would you keep, by feel alone?"), &Choices::byFeel, "byFeel"},
                     {tr("Which one is yours?"), &Choices::own, "own"},
                     {tr("And by the numbers?"), &Choices::byNumbers, "byNumbers"}};
    for (const auto& one : questions) {
        auto* box = new QWidget;
        box->setObjectName(QLatin1String(one.name));
        auto* rows = new QVBoxLayout(box);
        rows->setContentsMargins(0, 0, 0, 0);
        rows->setSpacing(4);
        rows->addWidget(captionLabel("question", one.question));
        rows->addLayout(new QHBoxLayout);
        column->addWidget(box);
        m_questions << Question{one.member, box, {}};
    }
    m_beforeText = captionLabel("beforeText");
    column->addWidget(m_beforeText);
    column->addStretch();
    return panel;
}

QWidget* DecisionPage::buildBet() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("If one must be chosen now"), column);
    m_bets = new QVBoxLayout;
    column->addLayout(m_bets);
    m_curtain = new Curtain;
    column->addWidget(m_curtain);
    m_betText = plainLabel();
    m_betText->setObjectName(QStringLiteral("betText"));
    m_betText->setWordWrap(true);
    column->addWidget(m_betText);
    column->addStretch();
    return panel;
}

QWidget* DecisionPage::buildExpected() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("Expected and said, and found"), column);
    m_expected = richLabel();
    m_expected->setObjectName(QStringLiteral("expectedFound"));
    m_expected->setWordWrap(true);
    m_expected->setAlignment(Qt::AlignTop);
    column->addWidget(m_expected);
    column->addStretch();
    return panel;
}

QWidget* DecisionPage::buildDecision() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("Decision"), column);
    auto* row = new QHBoxLayout;
    const QStringList texts{tr("&Keep"), tr("&Change"),       tr("Ad&just"),
                            tr("&Mix"),  tr("&Not the club"), tr("Test f&urther")};
    const QStringList names{"keep", "change", "adjust", "mix", "notTheClub", "testFurther"};
    for (int i = 0; i < texts.size(); ++i) {
        auto* button = new QPushButton(texts[i]);
        button->setObjectName(QStringLiteral("course_") + names[i]);
        button->setCheckable(true);
        button->setAutoDefault(true);
        row->addWidget(button);
        m_courses << button;
    }
    row->addStretch();
    column->addLayout(row);
    m_club = choiceBox({});
    column->addWidget(line(tr("the club"), m_club, "decidedClub"));
    m_reason = new QLineEdit;
    m_price = new QLineEdit;
    m_watch = new QLineEdit;
    column->addWidget(line(tr("b&ecause"), m_reason, "decisionReason"));
    column->addWidget(line(tr("price"), m_price, "decisionPrice"));
    column->addWidget(line(tr("to watch"), m_watch, "decisionWatch"));
    m_onBet = captionLabel("onBet");
    column->addWidget(m_onBet);
    m_follows = richLabel();
    m_follows->setObjectName(QStringLiteral("follows"));
    m_follows->setWordWrap(true);
    m_follows->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
    column->addWidget(m_follows);
    column->addStretch();
    return panel;
}

void DecisionPage::wire() {
    connect(m_curtain, &Curtain::lookRequested, &m_declaring, &Declaring::look);
    connect(m_reveal, &RevealPanel::sealedTextRequested, this, &DecisionPage::sealedTextRequested);
    for (qsizetype i = 0; i < m_courses.size(); ++i)
        connect(m_courses[i], &QPushButton::clicked, this, [this, course = courses[static_cast<std::size_t>(i)]] {
            decide(tr("the decision"), [&](Decision& decision) {
                decision.what = decision.what == course ? Action::none : course;
                decision.club =
                    words::namesClub(course) ? m_club->currentData().toString().toStdString() : std::string();
            });
        });
    connect(m_club, &QComboBox::activated, this, [this] {
        decide(tr("the club chosen"),
               [&](Decision& decision) { decision.club = m_club->currentData().toString().toStdString(); });
    });
    auto text = [this](QLineEdit* field, const QString& what, std::string Decision::*member) {
        Typed::in(field, [this, what, member](const QString& typed) {
            decide(what, [&](Decision& decision) { decision.*member = typed.toStdString(); });
        });
    };
    text(m_reason, tr("the reason"), &Decision::reason);
    text(m_price, tr("the price"), &Decision::price);
    text(m_watch, tr("what to watch"), &Decision::watch);
    connect(m_follows, &QLabel::linkActivated, this, [this](const QString& link) {
        if (link == QLatin1String("report"))
            emit reportRequested();
        else if (link == QLatin1String("again"))
            emit againRequested();
        else if (m_club->currentIndex() >= 0)
            link == QLatin1String("further") ? emit furtherRequested(m_club->currentData().toString().toStdString())
                                             : emit adjustRequested(m_club->currentData().toString().toStdString());
    });
    connect(&m_hand, &TestInHand::replaced, this, &DecisionPage::markStale);
    connect(&m_declaring, &Declaring::changed, this, &DecisionPage::markStale);
    connect(&m_declaring, &Declaring::revealed, this, &DecisionPage::markStale);
    connect(&m_judging, &Judging::changed, this, &DecisionPage::markStale);
    connect(&m_book, &Book::unitsChanged, this, &DecisionPage::markStale);
}

// Said once: what stands is not changed after.
void DecisionPage::choose(Said Choices::*member, std::size_t club) {
    m_declaring.say(member, record::BuildAt(club));
}

void DecisionPage::decide(const QString& what, const std::function<void(Decision&)>& edit) {
    m_declaring.change(what, [&](record::Declared& test) {
        Decision decided = test.decision;
        edit(decided);
        if (decided == test.decision)
            return;
        decided.at = nowText();
        test.decision = std::move(decided);
    });
}

void DecisionPage::refresh() {
    if (!m_hand.has())
        return;
    refreshBefore();
    refreshBet();
    m_reveal->refresh();
    refreshExpected();
    refreshDecision();
}

void DecisionPage::refreshBefore() {
    const Test& test = m_hand.test();
    const bool wasSealed = test.seal.wasMade();
    // Of what was sealed nothing can be said any more once it is open; of what never was it can be said late.
    const bool canSay = m_hand.isSealed() || !wasSealed;
    for (Question& question : m_questions) {
        const Said& said = test.choices.*question.member;
        const std::string chosen = said.tag;
        question.box->setVisible((wasSealed || question.member != &Choices::own) && (canSay || !said.at.empty()));
        auto* row = static_cast<QHBoxLayout*>(question.box->layout()->itemAt(1)->layout());
        while (question.clubs.size() > static_cast<qsizetype>(test.builds.size()))
            delete question.clubs.takeLast();
        while (question.clubs.size() < static_cast<qsizetype>(test.builds.size())) {
            const auto at = static_cast<std::size_t>(question.clubs.size());
            auto* button = new NameButton;
            button->setObjectName(question.box->objectName() + QString::number(at));
            button->setCheckable(true);
            button->setAutoDefault(true);
            question.clubs << button;
            row->addWidget(button, 1);
            connect(button, &QPushButton::clicked, this, [this, member = question.member, at] { choose(member, at); });
        }
        for (std::size_t b = 0; b < test.builds.size(); ++b) {
            NameButton* button = question.clubs[static_cast<qsizetype>(b)];
            button->setName(QString::fromStdString(test.builds[b].name));
            button->setChecked(test.builds[b].isCalled(chosen));
            button->setEnabled(canSay && said.at.empty());
        }
    }
    m_beforeHead->setText(wasSealed ? tr("Before the tags come off") : tr("Before deciding"));
    m_beforeText->setText(m_hand.isSealed() ? tr("Written down and kept before anybody knows; said once.")
                          : wasSealed       ? tr("What was said before the tags came off stands.")
                                            : tr("Said once, and kept with its time."));
}

void DecisionPage::refreshBet() {
    const judge::Reading* reading = m_judging.reading();
    const auto pictures =
        reading == nullptr ? std::vector<words::BestPicture>() : words::bestPictures(*reading, m_book.units());
    while (m_bestViews.size() > static_cast<qsizetype>(pictures.size()))
        delete m_bestViews.takeLast();
    while (m_bestViews.size() < static_cast<qsizetype>(pictures.size())) {
        m_bestViews << new BestView;
        m_bets->addWidget(m_bestViews.back());
    }
    std::vector<std::string> names;
    if (reading != nullptr)
        for (const judge::BuildCount& build : reading->builds)
            names.push_back(build.name);
    m_curtain->display(m_judging.withheld());
    m_betText->setVisible(!m_judging.withheld());
    QStringList texts;
    for (std::size_t i = 0; i < pictures.size(); ++i) {
        m_bestViews[static_cast<qsizetype>(i)]->display(pictures[i], names);
        if (!pictures[i].further.empty())
            texts << QString::fromStdString(pictures[i].further);
    }
    const bool isOpen = std::ranges::any_of(pictures, [](const auto& picture) { return !picture.isSettled; });
    if (pictures.empty())
        texts << (reading == nullptr
                      ? tr("The shots are being read, or there are none.")
                      : tr("No outcome with a wanted direction is declared: say one on the Sheet, and how "
                           "often each club is the best stands here."));
    else if (isOpen)
        texts << tr("A bet, not a finding. Where clubs can't be told apart, feel, price and trust decide: those are "
                    "reasons too.");
    m_betText->setText(texts.join(u'\n'));
}

void DecisionPage::refreshExpected() {
    const judge::Reading* reading = m_judging.reading();
    QString html;
    if (reading != nullptr) {
        const QString faint = colours().faint.name();
        for (const words::ExpectedLine& one : words::expectedLines(*reading))
            html += QStringLiteral("<tr><td><b>%1</b></td><td style='color:%4'>%2</td><td>%3</td></tr>")
                        .arg(QString::fromStdString(one.what).toHtmlEscaped(), QString::fromStdString(one.said),
                             QString::fromStdString(one.found), faint);
        if (!html.isEmpty())
            html = QStringLiteral("<table cellpadding='2' width='100%'>%1</table>").arg(html);
        for (const words::Remark& remark : words::shotRemarks(*reading, m_book.units()))
            if (remark.code.starts_with("feel") || remark.code == "versus" || remark.code == "expected_order")
                html += QStringLiteral("<p style='margin:4px 0 0 0'>%1</p>")
                            .arg(QString::fromStdString(remark.text).toHtmlEscaped());
    }
    if (reading != nullptr)
        for (const std::string& sentence : words::heldSentences(*reading, m_book.units()))
            html += QStringLiteral("<p style='margin:4px 0 0 0'>%1</p>")
                        .arg(QString::fromStdString(sentence).toHtmlEscaped());
    for (const record::Feel& feel : m_hand.test().feels)
        if (!feel.words.empty() && feel.build < m_hand.test().builds.size())
            html += QStringLiteral("<p style='margin:4px 0 0 0'>%1: “%2”</p>")
                        .arg(QString::fromStdString(m_hand.test().builds[feel.build].name).toHtmlEscaped(),
                             QString::fromStdString(feel.words).toHtmlEscaped());
    const bool isLater = m_hand.isSealed() && !m_hand.test().card.expectations.empty();
    m_expected->setText(!html.isEmpty() ? html
                        : isLater       ? tr("What was expected is held against the clubs once they are known.")
                                        : tr("Nothing was expected and nothing said."));
}

void DecisionPage::refreshDecision() {
    const Test& test = m_hand.test();
    const Decision& decision = test.decision;
    for (qsizetype i = 0; i < m_courses.size(); ++i)
        m_courses[i]->setChecked(decision.what == courses[static_cast<std::size_t>(i)]);
    const std::string shown = decision.club.empty() ? m_club->currentData().toString().toStdString() : decision.club;
    m_club->clear();
    for (const record::Build& build : test.builds) {
        const QString name = QString::fromStdString(build.name);
        m_club->addItem(name, name);
        if (build.isCalled(shown))
            m_club->setCurrentIndex(m_club->count() - 1);
    }
    for (const auto& [field, text] :
         {std::pair(m_reason, decision.reason), {m_price, decision.price}, {m_watch, decision.watch}})
        if (!field->hasFocus())
            field->setText(QString::fromStdString(text));
    const bool isBet = words::isOnBet(test, m_judging.reading());
    m_onBet->setText(isBet ? tr("On a bet: a screening or one run each finds nothing.") : QString());
    m_onBet->setVisible(isBet && decision.what != Action::none);
    const auto link = [](const char* to, const QString& text) {
        return QStringLiteral("<a href='%1' style='color:%2'>%3</a>")
            .arg(QLatin1String(to), colours().link.name(), text);
    };
    QStringList follow{link("report", tr("Report (Ctrl+P)"))};
    if (!m_hand.isSealed()) // a copy would tell which club is which
        follow << link("again", tr("the same on another day")) << link("further", tr("on from this club, with others"))
               << link("adjust", tr("this club adjusted, on the Rack"));
    m_follows->setText(follow.join(QStringLiteral(" · ")));
}

QString DecisionPage::subtitle() const {
    const QString decided = QString::fromStdString(words::decisionText(m_hand.test()));
    return tr("Decision · %1").arg(decided.isEmpty() ? tr("nothing decided yet") : decided);
}

void DecisionPage::takeFocus() {
    for (const Question& question : m_questions)
        for (NameButton* club : question.clubs)
            if (club->isEnabled() && !question.box->isHidden())
                return club->setFocus();
    if (m_hand.isSealed())
        m_reveal->takeFocus();
    else
        m_courses.front()->setFocus();
}

} // namespace knot::app
