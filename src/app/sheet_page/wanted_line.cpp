#include "app/sheet_page/wanted_line.h"

#include "app/form/panel.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/own_chart.h"
#include "app/session/test_in_hand.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/ask/answers.h"
#include "core/rack/club_kind.h"
#include "core/reach/chart.h"
#include "core/record/text/text.h"

#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace knot::app {
namespace {

using record::Metric;
using record::Target;
using record::Test;

// What is usually wanted of the club on test at the ball speed that the player usually has with it.
std::vector<Target> usualTargets(const Test& test, const std::optional<reach::Chart>& chart) {
    const auto& clubs = ask::clubsOf(test);
    if (clubs.empty())
        return {};
    const auto named =
        std::ranges::find_if(clubs, [&](const record::Build& build) { return build.isCalled(test.card.baseline); });
    const record::Build& club = named == clubs.end() ? clubs.front() : *named;
    const auto kind = rack::ClubKinds(test).first();
    const auto usual = test.firstPlayer().usual;
    const auto own = std::ranges::find_if(usual, [&](const record::Usual& one) {
        return one.ballSpeed && (one.club == club.name || record::lowerCase(one.club) == rack::kindName(kind));
    });
    if (own == usual.end())
        return {};
    auto wanted = !chart ? std::nullopt : chart->at(kind, *own->ballSpeed);
    if (!wanted)
        wanted = reach::usualChart().at(kind, *own->ballSpeed);
    if (!wanted)
        return {};
    std::vector<Target> targets;
    const auto add = [&](Metric metric, const reach::Band& band) {
        if (band.from && band.to)
            targets.push_back({metric, {}, *band.from, *band.to});
    };
    // Irons and wedges are hit at a green: how the ball comes down is wanted, and launch and spin only by a chart.
    if (kind == flight::HeadKind::driver || wanted->descent.isOpen()) {
        add(Metric::launch, wanted->launch);
        add(Metric::spin, wanted->spin);
    }
    add(Metric::descent, wanted->descent);
    return targets;
}

} // namespace

WantedLine::WantedLine(const TestInHand& hand, Declaring& declaring, Book& book)
    : OpenLine(tr("&Wanted"), "wanted")
    , m_hand(hand)
    , m_declaring(declaring)
    , m_book(book)
    , m_typed(new QLineEdit)
    , m_fault(captionLabel("windowFault"))
    , m_windows(richLabel(captionLabel("windows")))
    , m_usual(new QPushButton) {
    m_typed->setPlaceholderText(tr("launch 12 to 15 · d 42 48 for a club"));
    m_typed->setObjectName(QStringLiteral("window"));
    m_typed->setAccessibleName(tr("One more window, and Enter"));
    m_usual->setObjectName(QStringLiteral("usualWindows"));
    m_windows->setTextInteractionFlags(Qt::LinksAccessibleByKeyboard | Qt::LinksAccessibleByMouse);
    m_fault->hide();
    auto* row = new QHBoxLayout;
    row->addWidget(m_typed, 1);
    row->addWidget(m_usual);
    inside()->addLayout(row);
    inside()->addWidget(m_fault);
    inside()->addWidget(m_windows);
    connect(m_typed, &QLineEdit::returnPressed, this, &WantedLine::add);
    connect(m_typed, &QLineEdit::textEdited, m_fault, &QWidget::hide);
    connect(m_usual, &QPushButton::clicked, this, &WantedLine::takeUsual);
    connect(m_windows, &QLabel::linkActivated, this, [this](const QString& link) {
        if (link == QStringLiteral("chart"))
            return setOwnChart(m_book, {});
        m_declaring.change(tr("the wanted windows"), [&](record::Declared& test) {
            if (const auto at = link.toUInt(); at < test.card.targets.size())
                test.card.targets.erase(test.card.targets.begin() + static_cast<std::ptrdiff_t>(at));
        });
    });
}

// What was not understood stays in its field, with the reason.
void WantedLine::add() {
    const auto window = ask::windowFromText(m_typed->text().toStdString(), m_hand.test(), m_book.typing());
    m_fault->setText(window ? QString() : QString::fromStdString(window.error()));
    m_fault->setVisible(!window.has_value());
    if (!window)
        return;
    m_declaring.change(tr("the wanted windows"), [&](record::Declared& test) { test.card.targets.push_back(*window); });
    m_typed->clear();
}

void WantedLine::takeUsual() {
    const auto usual = usualTargets(m_hand.test(), ownChart(m_book));
    m_declaring.change(tr("the wanted windows"), [&](record::Declared& test) {
        for (const Target& target : usual)
            if (std::ranges::find(test.card.targets, target) == test.card.targets.end())
                test.card.targets.push_back(target);
    });
}

void WantedLine::refresh() {
    if (!m_hand.has())
        return;
    const Test& test = m_hand.test();
    QStringList said;
    QString html;
    for (std::size_t i = 0; i < test.card.targets.size(); ++i) {
        Target target = test.card.targets[i];
        if (m_hand.isSealed() && !target.build.empty()) // while the seal is closed only the Rack names clubs
            target.build = tr("one club").toStdString();
        const QString text = QString::fromStdString(ask::windowText(target, test, m_book.units()));
        said << text;
        html += tr("%1 <a href='%2' style='color:%3'>take back</a><br>")
                    .arg(text.toHtmlEscaped())
                    .arg(i)
                    .arg(colours().link.name());
    }
    setSaid(said.isEmpty() ? tr("no number in particular") : said.join(QStringLiteral(" · ")));
    if (const auto chart = ownChart(m_book))
        html += tr("What is usual comes from “%1”. <a href='chart' style='color:%2'>Take the chart that ships</a>")
                    .arg(QString::fromStdString(chart->name).toHtmlEscaped(), colours().link.name());
    m_windows->setText(html);
    m_windows->setVisible(!html.isEmpty());
    QStringList usual;
    for (const Target& target : usualTargets(test, ownChart(m_book)))
        usual << QString::fromStdString(ask::windowText(target, test, m_book.units()));
    m_usual->setVisible(!usual.isEmpty());
    m_usual->setText(tr("As usual: %1").arg(usual.join(QStringLiteral(", "))));
}

} // namespace knot::app
