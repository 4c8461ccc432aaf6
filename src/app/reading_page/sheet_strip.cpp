#include "app/reading_page/sheet_strip.h"

#include "app/form/sentence_view.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/judging.h"
#include "app/session/test_in_hand.h"
#include "app/style/palette.h"
#include "core/rack/club_kind.h"
#include "core/record/text/number_text.h"

#include <QVBoxLayout>

#include <algorithm>
#include <array>
#include <cmath>

namespace knot::app {
namespace {

using ask::Part;
using record::Want;

constexpr std::array wants = {std::pair{Want::Kind::none, "just to know"}, std::pair{Want::Kind::more, "more"},
                              std::pair{Want::Kind::less, "less"}};

record::Outcome averageOf(record::Metric metric) {
    return {.kind = record::OutcomeKind::average, .metric = metric, .shape = {}};
}

// With the metric's decimals, or one more where they would change the value.
std::string gapText(record::Metric metric, double gap, const record::DisplayUnits& units) {
    const record::MetricFormat format(metric, units);
    const double shown = format.shown(gap);
    const double power = std::pow(10.0, format.decimals());
    const bool exact = std::fabs(std::round(shown * power) / power - shown) < 1e-9 * std::fabs(shown);
    return record::fixed(shown, exact ? format.decimals() : format.decimals() + 1) +
           (format.unitText().empty() ? "" : " " + format.unitText());
}

} // namespace

SheetStrip::SheetStrip(const TestInHand& hand, Declaring& declaring, Judging& judging, Book& book, QWidget* parent)
    : QWidget(parent)
    , m_hand(hand)
    , m_declaring(declaring)
    , m_book(book)
    , m_line(new SentenceView(
          "judgedBy",
          {.pieces = [this] { return pieces(); },
           .answers = [this](const ask::Chip& chip) { return answers(chip); },
           .take = [this](const ask::Chip& chip, const QString& typed) { return take(chip, typed); },
           .stands = [this](const ask::Chip& chip) { return chip.part == Part::role && record::isStrike(m_metric); }},
          size::body, Part::baseline)) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(m_line);
    connect(&m_hand, &TestInHand::replaced, m_line, &SentenceView::refresh);
    connect(&judging, &Judging::changed, m_line, &SentenceView::refresh);
    connect(&m_book, &Book::unitsChanged, m_line, &SentenceView::refresh);
}

void SheetStrip::setMetric(record::Metric metric) {
    m_metric = metric;
    m_line->refresh();
}

// "[7-irons]; against [Alder 62]; carry is [declared], matters from [2.7 m], wanted [more]"
std::vector<ask::Piece> SheetStrip::pieces() const {
    if (!m_hand.has() || m_hand.test().builds.empty())
        return {};
    const record::Test& test = m_hand.test();
    const record::Card& card = test.card;
    std::vector<ask::Piece> line;
    const rack::ClubKinds kinds(test);
    if (kinds.areOne()) {
        const auto& all = kinds.ofAll();
        line.push_back({all ? rack::kindText(all->kind) + "s" : "what kind of club?", ask::Chip{Part::clubKind}, !all});
        line.push_back({";"});
    }
    if (!m_hand.isSealed()) {
        line.push_back({"against"});
        line.push_back({test.builds[test.baselineIndex()].name, ask::Chip{Part::baseline}});
        line.push_back({";"});
    }
    const bool isDeclared = std::ranges::find(card.primary, averageOf(m_metric)) != card.primary.end();
    const auto kind = card.want(averageOf(m_metric)).kind;
    const auto wanted = std::ranges::find(wants, kind, [](const auto& one) { return one.first; });
    line.push_back({record::info(m_metric).label + " is"});
    line.push_back({isDeclared ? "declared" : "exploratory", ask::Chip{Part::role}});
    line.push_back({", matters from"});
    line.push_back({gapText(m_metric, card.margin(m_metric), m_book.units()), ask::Chip{Part::margin}});
    line.push_back({", wanted"});
    line.push_back({wanted == wants.end() ? "near a value" : wanted->second, ask::Chip{Part::want}});
    return line;
}

std::vector<ask::Answer> SheetStrip::answers(const ask::Chip& chip) const {
    std::vector<ask::Answer> all;
    if (chip.part == Part::clubKind)
        for (const char* kind :
             {"driver", "3-wood", "5-wood", "4-hybrid", "5-iron", "6-iron", "7-iron", "8-iron", "9-iron", "wedge"})
            all.push_back({kind, {}});
    else if (chip.part == Part::baseline)
        for (const record::Build& build : m_hand.test().builds)
            all.push_back({build.name, {}});
    else if (chip.part == Part::role)
        all = {{"declared", {}}, {"exploratory", {}}};
    else if (chip.part == Part::want)
        for (const auto& [kind, text] : wants)
            all.push_back({text, {}});
    return all;
}

QString SheetStrip::take(const ask::Chip& chip, const QString& typed) {
    if (chip.part == Part::margin)
        return takeGap(typed);
    if (chip.part == Part::clubKind)
        return takeKind(typed);
    const auto all = answers(chip);
    const auto meant = ask::found(all, typed.toStdString());
    if (meant.empty() || typed.trimmed().isEmpty())
        return tr("“%1” is not among what can stand here; the down arrow shows it all.").arg(typed);
    const auto at =
        static_cast<std::size_t>(std::ranges::find(all, meant.front().text, &ask::Answer::text) - all.begin());
    if (chip.part == Part::baseline)
        m_declaring.setBaseline(record::BuildAt(at));
    else if (chip.part == Part::want)
        m_declaring.setWant(averageOf(m_metric), wants.at(at).first);
    else {
        const auto& primary = m_hand.test().card.primary;
        const bool isDeclared = std::ranges::find(primary, averageOf(m_metric)) != primary.end();
        if (isDeclared != (at == 0))
            m_declaring.togglePrimary(averageOf(m_metric));
    }
    return {};
}

QString SheetStrip::takeKind(const QString& typed) {
    const auto kind = rack::kindFromText(typed.toStdString());
    if (!kind && !typed.trimmed().isEmpty())
        return tr("“%1” is no kind of club, such as driver, 3-wood, 7-iron or wedge.").arg(typed);
    m_declaring.change(tr("the kind of club"), [&](record::Declared& test) {
        test.card.clubKind = kind ? rack::kindText(*kind) : std::string();
    });
    return {};
}

QString SheetStrip::takeGap(const QString& typed) {
    const auto gap = record::valueTyped(typed.toStdString(), m_metric, m_book.typing());
    if (!gap)
        return QString::fromStdString(gap.error());
    if (!(*gap > 0))
        return tr("A worthwhile gap is more than 0.");
    m_declaring.setMargin(m_metric, *gap);
    return {};
}

void SheetStrip::nextBaseline() {
    if (m_hand.has() && !m_hand.test().builds.empty())
        m_declaring.setBaseline(record::BuildAt((m_hand.test().baselineIndex() + 1) % m_hand.test().builds.size()));
}

void SheetStrip::toggleDeclared() {
    if (m_hand.has() && !record::isStrike(m_metric))
        m_declaring.togglePrimary(averageOf(m_metric));
    m_line->refresh();
}

void SheetStrip::editGap() {
    m_line->takeFocus(Part::margin);
}

} // namespace knot::app
