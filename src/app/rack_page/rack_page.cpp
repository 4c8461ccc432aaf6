#include "app/rack_page/rack_page.h"

#include "app/form/number_field.h"
#include "app/form/panel.h"
#include "app/rack_page/club_editor.h"
#include "app/rack_page/club_rows.h"
#include "app/rack_page/differences.h"
#include "app/rack_page/leads.h"
#include "app/rack_page/same_on_all.h"
#include "app/rack_page/starting_panel.h"
#include "app/session/bay_run.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/test_in_hand.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/ask/sentence.h"
#include "core/ask/usual_outcomes.h"
#include "core/rack/club_kind.h"
#include "core/rack/club_line.h"
#include "core/rack/difference.h"
#include "core/record/roster.h"
#include "core/record/text/number_text.h"

#include <QCoreApplication>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QScrollArea>
#include <QShortcut>
#include <QStackedWidget>
#include <QVBoxLayout>

#include <algorithm>

namespace knot::app {
namespace {

using record::Build;
using record::Metric;
using record::Test;

constexpr std::size_t mostClubs = 12;
constexpr double gripDown = 10; // mm

QString freshName(const record::Declared& test, QString stem) {
    if (!test.buildIndex(stem.toStdString()))
        return stem;
    for (int n = 2;; ++n)
        if (const QString name = QStringLiteral("%1 %2").arg(stem).arg(n); !test.buildIndex(name.toStdString()))
            return name;
}

QString headingOf(const record::Card& card) {
    const char* headings[] = {QT_TRANSLATE_NOOP("Rack", "What differs"),
                              QT_TRANSLATE_NOOP("Rack", "What differs: the shaft"),
                              QT_TRANSLATE_NOOP("Rack", "What differs: the head"),
                              QT_TRANSLATE_NOOP("Rack", "What differs: the loft"),
                              QT_TRANSLATE_NOOP("Rack", "What differs: the length"),
                              QT_TRANSLATE_NOOP("Rack", "What differs: the lie"),
                              QT_TRANSLATE_NOOP("Rack", "What differs: the grip"),
                              QT_TRANSLATE_NOOP("Rack", "What differs: the ball"),
                              QT_TRANSLATE_NOOP("Rack", "What differs: the delivery"),
                              QT_TRANSLATE_NOOP("Rack", "Whole clubs")};
    return QCoreApplication::translate("Rack", headings[static_cast<std::size_t>(card.kind)]);
}

QString hintFor(record::TestKind kind) {
    switch (kind) {
    case record::TestKind::shaft:
        return RackPage::tr("another shaft: its name, 62 g graphite R");
    case record::TestKind::head:
    case record::TestKind::wholeClubs:
        return RackPage::tr("another head: its name, 18° 58.5° 218 g");
    case record::TestKind::loft:
        return RackPage::tr("another loft: a name, 19.5°");
    case record::TestKind::lie:
        return RackPage::tr("another lie: a name, 60°");
    case record::TestKind::length:
        return RackPage::tr("another length: a name, 1067 mm or 42 in");
    case record::TestKind::grip:
        return RackPage::tr("another grip: its name, 52 g");
    default:
        return RackPage::tr("another club: its name");
    }
}

QPushButton* button(const QString& text, const char* name) {
    auto* made = new QPushButton(text);
    made->setObjectName(QLatin1String(name));
    return made;
}

} // namespace

RackPage::RackPage(const TestInHand& hand, Declaring& declaring, BayRun& bay, Book& book, QWidget* parent)
    : Page(parent)
    , m_hand(hand)
    , m_declaring(declaring)
    , m_bay(bay)
    , m_book(book) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(2 * size::grid);
    m_same = new SameOnAll(m_hand, m_declaring, m_book);
    column->addWidget(m_same);
    column->addWidget(buildList());
    auto* known = new QWidget;
    auto* row = new QHBoxLayout(known);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(2 * size::grid);
    row->addWidget(buildDifferences(), 4);
    m_screening = buildScreening();
    row->addWidget(m_screening, 3);
    m_starting = new StartingPanel(m_hand, m_book);
    row->addWidget(m_starting, 2);
    QVBoxLayout* parts = nullptr;
    Panel* editor = headedPanel({}, parts);
    m_editor = new ClubEditor(m_hand, m_declaring, m_book);
    parts->addWidget(m_editor);
    parts->addStretch();
    m_below = new QStackedWidget;
    m_below->addWidget(known);
    m_below->addWidget(scrolling(editor));
    column->addWidget(m_below, 1);
    buildKeys();
    wire();
}

QWidget* RackPage::buildList() {
    auto* panel = new Panel;
    auto* column = new QVBoxLayout(panel);
    column->setContentsMargins(size::grid, 10, size::grid, 10);
    column->setSpacing(4);
    auto* head = new QHBoxLayout;
    head->setContentsMargins(size::grid, 0, size::grid, 0);
    m_heading = headingLabel({});
    m_listText = captionLabel("clubsText");
    m_listText->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    head->addWidget(m_heading);
    head->addWidget(m_listText, 1);
    column->addLayout(head);
    m_list = new ClubRows;
    column->addWidget(m_list, 1);
    auto* foot = new QHBoxLayout;
    foot->setContentsMargins(size::grid, 0, size::grid, 0);
    m_new = new QLineEdit;
    m_new->setObjectName(QStringLiteral("newClub"));
    m_new->setAccessibleName(tr("One more club, and Enter"));
    m_parts = button(tr("&Every part of a club"), "everyPart");
    m_parts->setCheckable(true);
    foot->addWidget(m_new, 1);
    foot->addWidget(m_parts);
    column->addLayout(foot);
    m_newFault = captionLabel("newClubFault");
    m_newFault->hide();
    column->addWidget(m_newFault);
    return panel;
}

QWidget* RackPage::buildDifferences() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("What differs besides the factor"), column);
    m_differences = richLabel();
    m_differences->setObjectName(QStringLiteral("differences"));
    m_differences->setWordWrap(true);
    m_differences->setAlignment(Qt::AlignTop);
    QScrollArea* area = scrolling(m_differences);
    area->setAccessibleName(tr("Difference sheet"));
    column->addWidget(area, 1);
    return panel;
}

QWidget* RackPage::buildScreening() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("Leads, not verdicts"), column);
    m_leads = plainLabel();
    m_leads->setObjectName(QStringLiteral("leads"));
    m_leads->setWordWrap(true);
    m_leads->setAlignment(Qt::AlignTop);
    column->addWidget(m_leads, 1);
    m_shot = new NumberField({});
    m_reason = new QLineEdit;
    m_reason->setPlaceholderText(tr("too low, too harsh, …"));
    auto* row = new QHBoxLayout;
    row->addWidget(labelled(tr("&Shot with the club in hand, Enter"), m_shot, "shot"), 1);
    row->addWidget(labelled(tr("Strike it &off for, Enter"), m_reason, "reason"), 1);
    column->addLayout(row);
    auto* buttons = new QHBoxLayout;
    auto* file = button(tr("Add a shot file…"), "addShotFile");
    m_confirm = button(tr("Confirm the last two"), "confirm");
    buttons->addWidget(file);
    buttons->addWidget(m_confirm);
    column->addLayout(buttons);
    connect(file, &QPushButton::clicked, this, &RackPage::shotsRequested);
    connect(m_confirm, &QPushButton::clicked, this, &RackPage::confirm);
    return panel;
}

void RackPage::buildKeys() {
    auto key = [&](const QKeySequence& keys, auto action) {
        auto* shortcut = new QShortcut(keys, m_list);
        shortcut->setContext(Qt::WidgetShortcut);
        connect(shortcut, &QShortcut::activated, this, action);
    };
    key(Qt::Key_A, [this] { m_new->setFocus(); });
    key(Qt::Key_C, [this] { copyClub(); });
    key(Qt::Key_B, [this] { makeBaseline(); });
    key(Qt::Key_X, [this] { m_reason->setFocus(); });
    key(Qt::Key_Delete, [this] { removeClub(); });
    key(Qt::Key_L, [this] { vary(record::TestKind::lie, {tr("1 up"), tr("1 flat")}); });
    key(Qt::Key_G, [this] { vary(record::TestKind::length, {tr("gripped down")}); });
    key(Qt::Key_Return, [this] {
        if (m_list->currentItem() != nullptr && !m_hand.isSealed())
            m_list->editItem(m_list->currentItem());
    });
}

void RackPage::wire() {
    connect(m_list, &QListWidget::currentRowChanged, this, [this](int row) {
        if (row >= 0) {
            m_editor->offerParts();
            m_editor->setBuild(record::BuildAt(static_cast<std::size_t>(row)));
        }
    });
    connect(m_list, &ClubRows::lineTyped, this, &RackPage::takeLine, Qt::QueuedConnection); // the editor goes first
    connect(m_list, &ClubRows::measureWanted, this, [this](int row, const QString& field) {
        m_list->setCurrentRow(row);
        m_parts->setChecked(true);
        if (auto* edit = m_editor->findChild<NumberField*>(field))
            edit->setFocus();
    });
    connect(m_new, &QLineEdit::returnPressed, this, &RackPage::addTyped);
    connect(m_new, &QLineEdit::textEdited, m_newFault, &QWidget::hide);
    connect(m_parts, &QPushButton::toggled, this, &RackPage::openParts);
    connect(m_shot->edit(), &QLineEdit::returnPressed, this, [this] {
        const Metric metric = judge::leadOutcome(m_hand.test().card).metric;
        const auto shown = m_shot->value();
        const int row = m_list->currentRow();
        if (!shown || row < 0)
            return;
        m_shot->edit()->clear();
        emit shotTyped(record::BuildAt(static_cast<std::size_t>(row)), metric,
                       record::MetricFormat(metric, m_book.units()).internal(*shown));
    });
    connect(m_editor->nameField(), &QLineEdit::returnPressed, this, [this] { m_list->setFocus(); });
    connect(m_reason, &QLineEdit::returnPressed, this, &RackPage::strikeOff);
    connect(&m_hand, &TestInHand::replaced, this, &RackPage::markStale);
    connect(&m_declaring, &Declaring::changed, this, &RackPage::markStale);
    connect(&m_book, &Book::unitsChanged, this, &RackPage::markStale);
    connect(&m_bay, &BayRun::changed, this, &RackPage::markStale); // leads
}

void RackPage::openParts(bool isOpen) {
    m_below->setCurrentIndex(isOpen ? 1 : 0);
    if (isOpen)
        m_editor->nameField()->setFocus();
}

bool RackPage::add(const Build& build) {
    if (m_hand.isSealed()) {
        m_declaring.refuse(tr("The clubs are sealed; a club can join only after the reveal, in a new test."));
        return false;
    }
    if (m_hand.test().builds.size() >= mostClubs) {
        m_declaring.refuse(
            tr("%1 clubs are the most that one test can take. Screen them first, and test those left.").arg(mostClubs));
        return false;
    }
    if (!m_declaring.change(tr("the clubs"), [&](record::Declared& changed) { changed.builds.push_back(build); }))
        return false;
    refreshIfStale();
    m_list->setCurrentRow(m_list->count() - 1);
    return true;
}

// A new club is like the first one but for what is tested; of a part that the logbook knows it has what is known.
void RackPage::addTyped() {
    const std::string line = m_new->text().trimmed().toStdString();
    if (!m_hand.has() || line.empty())
        return m_list->setFocus();
    const Test& test = m_hand.test();
    const auto kind = test.card.kind;
    Build build;
    if (!test.builds.empty())
        build.club = test.builds.front().club;
    record::Part* tested = kind == record::TestKind::shaft  ? &build.club.shaft
                           : kind == record::TestKind::head ? &build.club.head
                           : kind == record::TestKind::grip ? &build.club.grip
                                                            : nullptr;
    if (tested != nullptr)
        *tested = {.kind = tested->kind};
    if (kind == record::TestKind::ball)
        build.club.ball.clear();
    if (kind == record::TestKind::wholeClubs)
        build.club = {.ball = build.club.ball};
    auto said = rack::clubSaid(build, line, kind, m_book.typing());
    if (said && tested != nullptr) {
        const std::string& name = said->club.part(tested->kind).name;
        for (const record::Part& part : m_book.knownParts())
            if (part.kind == tested->kind && part.name == name) {
                *tested = part;
                said = rack::clubSaid(build, line, kind, m_book.typing());
                break;
            }
    }
    const QString fault = !said                         ? QString::fromStdString(said.error())
                          : test.buildIndex(said->name) ? tr("Another club has this name.")
                                                        : QString();
    m_newFault->setText(fault);
    m_newFault->setVisible(!fault.isEmpty());
    if (fault.isEmpty() && add(*said))
        m_new->clear();
}

void RackPage::copyClub() {
    const int row = m_list->currentRow();
    if (!m_hand.has() || row < 0 || row >= static_cast<int>(m_hand.test().builds.size()))
        return;
    Build build = m_hand.test().builds[static_cast<std::size_t>(row)];
    build.id.clear(); // it is another one
    build.name = freshName(m_hand.test(), QString::fromStdString(build.name)).toStdString();
    if (add(build))
        m_list->editItem(m_list->currentItem());
}

// The club in hand and the same with a builder's word or two: a test of lie, or of gripping down.
void RackPage::vary(record::TestKind kind, const QStringList& ways) {
    const int row = m_list->currentRow();
    if (!m_hand.has() || m_hand.isSealed() || row < 0)
        return;
    if (!m_hand.test().shots.empty())
        return m_declaring.refuse(tr("Shots are struck already: take the clubs to a test of their own with Ctrl+L."));
    const Build from = m_hand.test().builds[static_cast<std::size_t>(row)];
    m_declaring.change(tr("the clubs"), [&](record::Declared& test) {
        ask::setKind(test.card, kind);
        test.card.baseline = from.who();
        for (const QString& way : ways) {
            Build build = from;
            build.id.clear();
            build.name = freshName(test, QString::fromStdString(from.name) + u' ' + way).toStdString();
            if (kind == record::TestKind::length)
                build.club.grippedDown += gripDown;
            else if (auto said = rack::clubSaid(build, build.name + ", " + way.toStdString(), kind, {}))
                build = std::move(*said);
            test.builds.push_back(std::move(build));
        }
    });
}

// A name that another club has is not taken; the rest of the line is.
void RackPage::takeLine(int row, const QString& line) {
    if (!m_hand.has() || m_hand.isSealed() || row < 0 || row >= static_cast<int>(m_hand.test().builds.size()))
        return;
    const auto at = static_cast<std::size_t>(row);
    const Test& test = m_hand.test();
    const auto said = rack::clubSaid(test.builds[at], line.toStdString(), test.card.kind, m_book.typing());
    if (!said)
        return m_declaring.refuse(QString::fromStdString(said.error()));
    const auto twin = test.buildIndex(said->name);
    if (twin && *twin != at)
        return m_declaring.refuse(tr("Another club is called %1.").arg(QString::fromStdString(said->name)));
    m_declaring.change(tr("the line of %1").arg(QString::fromStdString(test.builds[at].name)),
                       [&](record::Declared& changed) { changed.builds[at] = *said; });
    m_list->setFocus();
}

void RackPage::removeClub() {
    const int row = m_list->currentRow();
    if (!m_hand.has() || row < 0 || m_hand.isSealed())
        return;
    m_declaring.removeClub(record::BuildAt(static_cast<std::size_t>(row)));
}

void RackPage::makeBaseline() {
    if (m_list->currentRow() >= 0)
        m_declaring.setBaseline(record::BuildAt(static_cast<std::size_t>(m_list->currentRow())));
}

void RackPage::strikeOff() {
    const int row = m_list->currentRow();
    if (row < 0 || m_hand.isSealed())
        return;
    const QString reason = m_reason->text().trimmed();
    m_reason->clear();
    m_list->setFocus();
    m_declaring.strikeOff(record::BuildAt(static_cast<std::size_t>(row)), reason);
}

void RackPage::confirm() {
    std::vector<std::string> left;
    for (const judge::Lead& lead : judge::leads(judge::Case::of(m_hand.test())))
        if (left.size() < 2)
            left.push_back(m_hand.test().builds[lead.club].name);
    if (left.size() == 2)
        emit confirmRequested(left);
}

void RackPage::refresh() {
    if (!m_hand.has())
        return;
    const Test& test = m_hand.test();
    const auto& clubs = ask::clubsOf(test);
    m_same->refresh();
    refreshRows();
    m_editor->setBuild(record::BuildAt(static_cast<std::size_t>(std::max(0, m_list->currentRow()))));
    m_listText->setText(m_hand.isSealed() ? tr("Sealed: nothing here tells which tag is which.")
                        : clubs.empty()
                            ? tr("A name and Enter, one after another")
                            : tr("Enter changes · A adds · C copies · B my club · L lies · G gripped down · Delete"));
    m_new->setEnabled(!m_hand.isSealed());
    m_screening->setVisible(test.stage != record::Stage::test);
    m_starting->setVisible(test.stage == record::Stage::test);
    refreshDifferences();
    refreshScreening();
    m_starting->refresh();
}

void RackPage::refreshRows() {
    const Test& test = m_hand.test();
    RackShown shown{
        .clubs = ask::clubsOf(test), .heads = {}, .under = {}, .slips = {}, .sheet = {}, .kind = test.card.kind};
    const rack::ClubKinds kinds(test);
    for (std::size_t i = 0; i < shown.clubs.size(); ++i)
        shown.heads.push_back(i < test.builds.size() ? kinds.head(record::BuildAt(i)) : kinds.first());
    shown.isSealed = m_hand.isSealed();
    shown.length = m_book.units().length;
    shown.leftHanded = test.firstPlayer().leftHanded;
    const auto sheet = shown.clubs.size() < 2 ? std::vector<rack::Difference>()
                                              : rack::differenceSheet(shown.clubs, test.card.kind, m_book.units());
    const bool against = test.card.comparison == record::Comparison::againstBaseline && !test.builds.empty();
    const auto named =
        std::ranges::find_if(shown.clubs, [&](const Build& build) { return build.isCalled(test.card.baseline); });
    const std::size_t baseline = named == shown.clubs.end() ? 0 : static_cast<std::size_t>(named - shown.clubs.begin());
    const record::Roster roster(test);
    for (std::size_t b = 0; b < shown.clubs.size(); ++b) {
        QStringList under;
        if (against && b == baseline && test.stage == record::Stage::test)
            under << tr("my club");
        if (!shown.clubs[b].tag.empty() && !m_hand.isSealed())
            under << tr("was %1").arg(QString::fromStdString(shown.clubs[b].tag));
        shown.isOut.push_back(!m_hand.isSealed() && !roster.isIn(record::BuildAt(b)));
        if (shown.isOut.back())
            under << tr("out: %1").arg(QString::fromStdString(roster.whyOut(record::BuildAt(b))));
        shown.under.push_back(under.join(QStringLiteral(" · ")));
        shown.slips.push_back(sheet.empty() ? QString() : slipOf(sheet, b));
    }
    m_heading->setText(headingOf(test.card));
    m_new->setPlaceholderText(hintFor(test.card.kind));
    shown.sheet = sheet;
    const QSignalBlocker quiet(m_list);
    m_list->display(std::move(shown));
}

void RackPage::refreshDifferences() {
    m_differences->setText(differencesHtml(ask::clubsIn(m_hand.test()), m_hand.test().card.kind,
                                           m_hand.test().firstPlayer(), m_book.units()));
}

void RackPage::refreshScreening() {
    const Test& test = m_hand.test();
    if (test.stage == record::Stage::test)
        return;
    const auto leads = judge::leads(judge::Case::of(test));
    const Metric metric = judge::leadOutcome(test.card).metric;
    const record::MetricFormat format(metric, m_book.units());
    m_leads->setText(leadsText(test, leads, m_book.units()));
    m_shot->setRange({.low = -1e6, .high = 1e6, .of = record::wantedOf(metric, m_book.units())});
    m_shot->setRemark(
        tr("%1 of %2")
            .arg(QString::fromStdString(format.unitText()), QString::fromStdString(record::info(metric).label)));
    m_confirm->setVisible(rack::ClubKinds(test).areOne()); // a bag is no contest
    m_confirm->setEnabled(leads.size() >= 2);
    m_confirm->setText(leads.size() > 2 ? tr("Confirm the first two") : tr("Confirm the last two"));
}

QString RackPage::subtitle() const {
    return tr("Clubs · %1").arg(QString::fromStdString(record::counted(ask::clubsOf(m_hand.test()).size(), "club")));
}

void RackPage::takeFocus() {
    m_editor->offerParts();
    m_same->offerParts();
    if (m_hand.has() && m_hand.test().builds.empty())
        m_new->setFocus();
    else
        m_list->setFocus();
}

} // namespace knot::app
