#include "app/decision_page/decision_page.h"

#include "app/decision_page/before_panel.h"
#include "app/decision_page/club_card.h"
#include "app/decision_page/club_pictures.h"
#include "app/decision_page/reveal_panel.h"
#include "app/decision_page/steps_view.h"
#include "app/form/curtain.h"
#include "app/form/key_card.h"
#include "app/form/panel.h"
#include "app/form/sentence_view.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/judging.h"
#include "app/session/test_in_hand.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/plan/seal.h"
#include "core/words/decide.h"
#include "core/words/linked_tests.h"
#include "core/words/remarks/shot_remarks.h"

#include <QDateTime>
#include <QPushButton>
#include <QShortcut>
#include <QVBoxLayout>

#include <algorithm>
#include <array>

namespace knot::app {
namespace {

using ask::Part;
using record::Action;
using record::Decision;
using record::Test;

constexpr int mostAcross = 4; // cards in a row

struct Course {
    Action what;
    Qt::Key key;
    const char* name;
    const char* text;
};
constexpr std::array courses = {
    Course{Action::keep, Qt::Key_K, "course_keep", QT_TRANSLATE_NOOP("DecisionPage", "keep")},
    Course{Action::change, Qt::Key_C, "course_change", QT_TRANSLATE_NOOP("DecisionPage", "change")},
    Course{Action::adjust, Qt::Key_A, "course_adjust", QT_TRANSLATE_NOOP("DecisionPage", "adjust")},
    Course{Action::mix, Qt::Key_M, "course_mix", QT_TRANSLATE_NOOP("DecisionPage", "mix")},
    Course{Action::notTheClub, Qt::Key_N, "course_notTheClub", QT_TRANSLATE_NOOP("DecisionPage", "not the club")},
    Course{Action::testFurther, Qt::Key_T, "course_testFurther", QT_TRANSLATE_NOOP("DecisionPage", "test further")}};

std::string nowText() {
    return QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
}

} // namespace

DecisionPage::DecisionPage(const TestInHand& hand, Declaring& declaring, Judging& judging, Book& book)
    : m_hand(hand)
    , m_declaring(declaring)
    , m_judging(judging)
    , m_book(book) {
    QVBoxLayout* rows = scrollingRows(this);
    rows->setSpacing(10);
    m_steps = new StepsView;
    rows->addWidget(m_steps);
    m_before = new BeforePanel(hand, declaring);
    rows->addWidget(m_before);
    m_cardArea = new QWidget;
    m_cardGrid = new QGridLayout(m_cardArea);
    m_cardGrid->setContentsMargins(0, 0, 0, 0);
    m_cardGrid->setSpacing(2 * size::grid);
    rows->addWidget(m_cardArea, 1);
    m_curtain = new Curtain;
    rows->addWidget(m_curtain);
    m_unveil = new QPushButton;
    m_unveil->setObjectName(QStringLiteral("unveil"));
    rows->addWidget(m_unveil, 0, Qt::AlignHCenter);
    m_reveal = new RevealPanel(hand, declaring, judging);
    rows->addWidget(m_reveal);
    rows->addWidget(buildDecision());
    wire();
}

QWidget* DecisionPage::buildDecision() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel({}, column);
    column->addWidget(headingLabel(tr("What now?")));
    m_courseGrid = new QGridLayout;
    for (const Course& course : courses) {
        auto* card = new KeyCard(QKeySequence(course.key).toString(), tr(course.text), course.name);
        card->setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Fixed);
        m_courses << card;
    }
    layCourses();
    column->addLayout(m_courseGrid);
    m_sentence =
        new SentenceView("decided",
                         {.pieces = [this] { return pieces(); },
                          .answers =
                              [this](const ask::Chip& chip) {
                                  return chip.part == Part::decidedClub ? clubs() : std::vector<ask::Answer>();
                              },
                          .take = [this](const ask::Chip& chip, const QString& typed) { return take(chip, typed); }},
                         size::strong, Part::decidedClub);
    column->addWidget(m_sentence);
    m_onBet = captionLabel("onBet");
    column->addWidget(m_onBet);
    m_expected = richLabel(new WholeLabel);
    m_expected->setObjectName(QStringLiteral("expectedFound"));
    m_expected->setForegroundRole(QPalette::PlaceholderText);
    m_expected->setWordWrap(true);
    column->addWidget(m_expected);
    m_betText = captionLabel("betText");
    column->addWidget(m_betText);
    m_follows = richLabel(new WholeLabel);
    m_follows->setObjectName(QStringLiteral("follows"));
    m_follows->setWordWrap(true);
    m_follows->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
    column->addWidget(m_follows);
    return panel;
}

// In a row, or where that has no room in two.
void DecisionPage::layCourses() {
    int needed = 4 * size::grid;
    for (const KeyCard* card : m_courses)
        needed += card->sizeHint().width() + m_courseGrid->horizontalSpacing();
    const int across = needed < width() ? static_cast<int>(m_courses.size()) : static_cast<int>(m_courses.size()) / 2;
    for (qsizetype i = 0; i < m_courses.size(); ++i)
        m_courseGrid->addWidget(m_courses[i], static_cast<int>(i) / across, static_cast<int>(i) % across,
                                Qt::AlignLeft);
    m_courseGrid->setColumnStretch(static_cast<int>(m_courses.size()), 1);
}

void DecisionPage::resizeEvent(QResizeEvent* event) {
    Page::resizeEvent(event);
    layCourses();
}

void DecisionPage::wire() {
    connect(m_curtain, &Curtain::lookRequested, &m_declaring, &Declaring::look);
    connect(m_reveal, &RevealPanel::sealedTextRequested, this, &DecisionPage::sealedTextRequested);
    connect(m_unveil, &QPushButton::clicked, this, &DecisionPage::unveil);
    for (std::size_t i = 0; i < courses.size(); ++i) {
        auto take = [this, what = courses.at(i).what] { takeCourse(what); };
        connect(m_courses[static_cast<qsizetype>(i)], &KeyCard::clicked, this, take);
        auto* key = new QShortcut(courses.at(i).key, this);
        key->setContext(Qt::WidgetWithChildrenShortcut);
        connect(key, &QShortcut::activated, this, take);
    }
    connect(m_follows, &QLabel::linkActivated, this, [this](const QString& link) {
        const Test& test = m_hand.test();
        if (link == QLatin1String("report"))
            return emit reportRequested();
        if (link == QLatin1String("again"))
            return emit againRequested();
        if (test.builds.empty())
            return;
        const std::string club = test.builds[clubInHand(test.decision.what)].name; // the test goes meanwhile
        link == QLatin1String("further") ? emit furtherRequested(club) : emit adjustRequested(club);
    });
    connect(&m_hand, &TestInHand::replaced, this, [this] {
        m_tagsOff.reset();
        markStale();
    });
    connect(&m_declaring, &Declaring::changed, this, &DecisionPage::markStale);
    connect(&m_declaring, &Declaring::revealed, this, [this] {
        m_tagsOff = 0; // they come off one by one
        markStale();
        m_unveil->setFocus();
    });
    connect(&m_judging, &Judging::changed, this, &DecisionPage::markStale);
    connect(&m_book, &Book::unitsChanged, this, &DecisionPage::markStale);
}

// The next tag; after the last one what the seal proves.
void DecisionPage::unveil() {
    if (!m_tagsOff)
        return;
    if (++*m_tagsOff >= m_hand.test().builds.size())
        m_tagsOff.reset();
    refresh();
    if (!m_tagsOff)
        m_courses.front()->setFocus();
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

// The club that such a course is about where nobody said: to keep one's own, to change to the likeliest best other.
std::size_t DecisionPage::clubInHand(Action course) const {
    const Test& test = m_hand.test();
    if (const auto said = test.buildIndex(test.decision.club); said && !test.decision.club.empty())
        return static_cast<std::size_t>(*said);
    const auto own = static_cast<std::size_t>(test.baselineIndex());
    const bool isOne = test.card.comparison == record::Comparison::againstBaseline;
    if (course == Action::keep && isOne && !m_hand.isSealed())
        return own;
    if (const judge::Reading* reading = m_judging.reading())
        for (const words::BestPicture& picture : words::bestPictures(*reading, m_book.units()))
            for (const words::BestLine& line : picture.lines)
                if (line.build < test.builds.size() &&
                    (course != Action::change || !isOne || m_hand.isSealed() || line.build != own))
                    return static_cast<std::size_t>(line.build);
    for (record::BuildAt other; course == Action::change && other < test.builds.size(); ++other)
        if (other != own && words::mayBeChosen(test, other))
            return static_cast<std::size_t>(other);
    return own;
}

// The reason is drafted from what was found, and anybody's to write anew.
void DecisionPage::takeCourse(Action course) {
    if (!m_hand.has() || m_hand.test().builds.empty())
        return;
    const judge::Reading* reading = m_judging.reading();
    const std::size_t club = clubInHand(course);
    decide(tr("the decision"), [&](Decision& decision) {
        const bool isSame = decision.what == course;
        decision.what = isSame ? Action::none : course;
        decision.club = !isSame && words::namesClub(course) ? m_hand.test().builds[club].name : std::string();
        if (!isSame && words::namesClub(course) && decision.reason.empty() && reading != nullptr)
            decision.reason = words::reasonFor(m_hand.test(), *reading, record::BuildAt(club), m_book.units());
    });
}

void DecisionPage::takeClub(std::size_t build) {
    const Test& test = m_hand.test();
    if (build >= test.builds.size())
        return;
    decide(tr("the club chosen"), [&](Decision& decision) {
        if (decision.what == Action::none || !words::namesClub(decision.what))
            decision.what = !m_hand.isSealed() && build == static_cast<std::size_t>(test.baselineIndex())
                                ? Action::keep
                                : Action::change;
        decision.club = test.builds[build].name;
    });
}

std::vector<ask::Answer> DecisionPage::clubs() const {
    std::vector<ask::Answer> all;
    const Test& test = m_hand.test();
    for (record::BuildAt build; build < test.builds.size(); ++build)
        if (words::mayBeChosen(test, build))
            all.push_back({test.builds[build].name, {}});
    return all;
}

// "Keep [Alder 62], because [it carries farther]. Price: […]. Next time look at […]."
std::vector<ask::Piece> DecisionPage::pieces() const {
    if (!m_hand.has() || m_hand.test().builds.empty())
        return {};
    const Test& test = m_hand.test();
    const Decision& decision = test.decision;
    std::vector<ask::Piece> line;
    const bool isNamed = words::namesClub(decision.what);
    line.push_back({decision.what == Action::none         ? "Nothing is decided"
                    : decision.what == Action::keep       ? "Keep"
                    : decision.what == Action::change     ? "Change to"
                    : decision.what == Action::adjust     ? "Adjust"
                    : decision.what == Action::mix        ? "Both have their place"
                    : decision.what == Action::notTheClub ? "Not the club: the swing"
                                                          : "Test further"});
    if (isNamed)
        line.push_back({test.nameOf(decision.club), ask::Chip{Part::decidedClub}});
    auto text = [&](const std::string& before, Part part, const std::string& said, const char* hint) {
        line.push_back({before});
        line.push_back({said.empty() ? hint : said, ask::Chip{part}, said.empty()});
    };
    if (decision.what == Action::none && decision.reason.empty() && decision.price.empty() && decision.watch.empty()) {
        line.push_back({": a key or a club says what."});
        return line;
    }
    text(", because", Part::reason, decision.reason, "why");
    text(". Price:", Part::price, decision.price, "none said");
    text(". Next time look at", Part::watch, decision.watch, "nothing yet");
    line.push_back({"."});
    return line;
}

QString DecisionPage::take(const ask::Chip& chip, const QString& typed) {
    if (chip.part == Part::decidedClub) {
        const auto all = clubs();
        const auto meant = ask::found(all, typed.toStdString());
        if (meant.empty() || typed.trimmed().isEmpty())
            return tr("“%1” is no club of this test.").arg(typed);
        if (const auto build = m_hand.test().buildIndex(meant.front().text))
            takeClub(static_cast<std::size_t>(*build));
        return {};
    }
    std::string Decision::*member = chip.part == Part::reason  ? &Decision::reason
                                    : chip.part == Part::price ? &Decision::price
                                                               : &Decision::watch;
    decide(QString::fromStdString(ask::nameOf(chip)),
           [&](Decision& decision) { decision.*member = typed.trimmed().toStdString(); });
    return {};
}

void DecisionPage::refresh() {
    if (!m_hand.has())
        return;
    refreshSteps();
    m_before->refresh();
    refreshCards();
    m_reveal->refresh();
    if (m_tagsOff)
        m_reveal->hide();
    refreshExpected();
    refreshBet();
    refreshDecision();
}

void DecisionPage::refreshSteps() {
    const Test& test = m_hand.test();
    QList<StepsView::Step> steps;
    QStringList said;
    for (const auto& [choice, text] : {std::pair(test.choices.byFeel, tr("liked %1")),
                                       {test.choices.own, tr("took %1 for own")},
                                       {test.choices.byNumbers, tr("by numbers %1")}})
        if (!choice.tag.empty())
            said << text.arg(QString::fromStdString(test.nameOf(choice.tag)));
    const bool wasSealed = test.seal.wasMade();
    const bool isSaid =
        !test.choices.byFeel.at.empty() || !test.choices.byNumbers.at.empty() || !test.choices.own.at.empty();
    steps << StepsView::Step{.name = wasSealed ? tr("said blind") : tr("said"),
                             .more = m_tagsOff ? QString() : said.join(QStringLiteral(" · ")),
                             .isDone = isSaid};
    if (wasSealed)
        steps << StepsView::Step{.name = tr("tags off"),
                                 .more =
                                     m_hand.isSealed() || m_tagsOff ? QString()
                                     : plan::agreementOf(test).state == plan::Agreement::State::agrees
                                         ? tr("%1… agrees").arg(QString::fromStdString(test.seal.commitment).left(8))
                                         : tr("see below"),
                                 .isDone = !m_hand.isSealed() && !m_tagsOff};
    steps << StepsView::Step{.name = tr("decided"), .more = {}, .isDone = test.decision.what != Action::none};
    m_steps->display(steps);
}

void DecisionPage::refreshCards() {
    const Test& test = m_hand.test();
    const bool isHidden = m_judging.withheld().has_value();
    m_curtain->display(m_judging.withheld());
    m_cardArea->setVisible(!isHidden);
    const auto pictures = isHidden ? std::vector<ClubPicture>() : clubPictures(test, m_judging, m_book.units());
    while (m_cards.size() > static_cast<qsizetype>(pictures.size()))
        delete m_cards.takeLast();
    while (m_cards.size() < static_cast<qsizetype>(pictures.size())) {
        auto* card = new ClubCard;
        card->setObjectName(QStringLiteral("card%1").arg(m_cards.size()));
        connect(card, &ClubCard::clicked, this, [this, card] { takeClub(card->picture().build); });
        m_cards << card;
    }
    double low = 0;
    double high = 1;
    bool isFirst = true;
    for (const ClubPicture& picture : pictures)
        for (const double shot : picture.shots) {
            low = isFirst ? shot : std::min(low, shot);
            high = isFirst ? shot : std::max(high, shot);
            isFirst = false;
        }
    const int across = static_cast<int>(pictures.size()) > mostAcross ? mostAcross : static_cast<int>(pictures.size());
    for (std::size_t i = 0; i < pictures.size(); ++i) {
        ClubPicture picture = pictures[i];
        if (m_tagsOff)
            picture.found.clear();          // it names the others
        if (m_tagsOff && i >= *m_tagsOff) { // its tag is still on
            picture.name = QString::fromStdString(test.builds[picture.build].tag);
            picture.under.clear();
            picture.isVeiled = true;
        }
        ClubCard* card = m_cards[static_cast<qsizetype>(i)];
        const bool isChosen =
            words::namesClub(test.decision.what) && test.builds[picture.build].isCalled(test.decision.club);
        card->setLow(static_cast<int>(pictures.size()) > mostAcross || (m_hand.isSealed() && !m_before->isHidden()));
        card->display(picture, low, high, isChosen);
        m_cardGrid->addWidget(card, static_cast<int>(i) / across, static_cast<int>(i) % across);
    }
    m_unveil->setVisible(m_tagsOff.has_value());
    if (m_tagsOff && *m_tagsOff < test.builds.size())
        m_unveil->setText(tr("Take off the tag of %1").arg(QString::fromStdString(test.builds[*m_tagsOff].tag)));
}

void DecisionPage::refreshBet() {
    const judge::Reading* reading = m_judging.reading();
    const auto pictures =
        reading == nullptr ? std::vector<words::BestPicture>() : words::bestPictures(*reading, m_book.units());
    QStringList texts;
    for (const words::BestPicture& picture : pictures)
        if (!picture.further.empty())
            texts << QString::fromStdString(picture.further);
    const bool isOpen = std::ranges::any_of(pictures, [](const auto& picture) { return !picture.isSettled; });
    if (pictures.empty())
        texts << (reading == nullptr
                      ? tr("The shots are being read, or there are none.")
                      : tr("No outcome with a wanted direction is declared: say one on the test sheet, and how "
                           "often each club is the best stands here."));
    else if (isOpen)
        texts << tr("A bet, not a finding. Where clubs can't be told apart, feel, price and trust decide: those are "
                    "reasons too.");
    m_betText->setText(texts.join(u' '));
    m_betText->setVisible(!texts.isEmpty() && !m_judging.withheld());
}

void DecisionPage::refreshExpected() {
    const judge::Reading* reading = m_judging.reading();
    QStringList said;
    if (reading != nullptr && !m_tagsOff) {
        for (const words::ExpectedLine& one : words::expectedLines(*reading))
            said << tr("Expected of %1: %2; found: %3.")
                        .arg(QString::fromStdString(one.what), QString::fromStdString(one.said),
                             QString::fromStdString(one.found));
        for (const words::Remark& remark : words::shotRemarks(*reading, m_book.units()))
            if (remark.code.starts_with("feel") || remark.code == "versus" || remark.code == "expected_order")
                said << QString::fromStdString(remark.text);
        for (const std::string& sentence : words::heldSentences(*reading, m_book.units()))
            said << QString::fromStdString(sentence);
    }
    const bool isLater = m_hand.isSealed() && !m_hand.test().card.expectations.empty();
    if (said.isEmpty() && isLater)
        said << tr("What was expected is held against the clubs once they are known.");
    m_expected->setText(said.join(u' ').toHtmlEscaped());
    m_expected->setVisible(!said.isEmpty());
}

void DecisionPage::refreshDecision() {
    const Test& test = m_hand.test();
    for (std::size_t i = 0; i < courses.size(); ++i) {
        KeyCard* card = m_courses[static_cast<qsizetype>(i)];
        const bool isTaken = test.decision.what == courses.at(i).what;
        card->setDefault(isTaken);
        card->setAccessibleDescription(isTaken ? tr("decided") : QString());
    }
    m_sentence->refresh();
    const bool isBet = words::isOnBet(test, m_judging.reading());
    m_onBet->setText(isBet ? tr("On a bet: a screening or one run each finds nothing.") : QString());
    m_onBet->setVisible(isBet && test.decision.what != Action::none);
    const auto link = [](const char* to, const QString& text) {
        return QStringLiteral("<a href='%1' style='color:%2'>%3</a>")
            .arg(QLatin1String(to), colours().link.name(), text);
    };
    QStringList follow{link("report", tr("Report (Ctrl+P)"))};
    if (!m_hand.isSealed()) // a copy would tell which club is which
        follow << link("again", tr("the same on another day")) << link("further", tr("on from this club, with others"))
               << link("adjust", tr("this club adjusted, on the Clubs page"));
    m_follows->setText(follow.join(QStringLiteral(" · ")));
}

QString DecisionPage::subtitle() const {
    const QString decided = QString::fromStdString(words::decisionText(m_hand.test()));
    return tr("Decision · %1").arg(decided.isEmpty() ? tr("nothing decided yet") : decided);
}

void DecisionPage::takeFocus() {
    if (m_tagsOff)
        return m_unveil->setFocus();
    if (m_before->takeFocus())
        return;
    if (m_hand.isSealed())
        m_reveal->takeFocus();
    else
        m_courses.front()->setFocus();
}

} // namespace knot::app
