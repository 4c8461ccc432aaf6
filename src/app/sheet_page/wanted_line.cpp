#include "app/sheet_page/wanted_line.h"

#include "app/form/panel.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/test_in_hand.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/ask/answers.h"
#include "core/rack/club_kind.h"
#include "core/rack/wanted.h"
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
std::vector<Target> usualTargets(const Test& test) {
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
    const auto window = own == usual.end() ? std::nullopt : rack::wantedWindow(kind, *own->ballSpeed);
    if (!window)
        return {};
    if (window->launchHigh > 0)
        return {{Metric::launch, {}, window->launchLow, window->launchHigh},
                {Metric::spin, {}, window->spinLow, window->spinHigh}};
    constexpr double steepest = 60; // degrees: from there on, however steep
    return {{Metric::descent, {}, window->descentLow, steepest}};
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
    const auto usual = usualTargets(m_hand.test());
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
    m_windows->setText(html);
    m_windows->setVisible(!html.isEmpty());
    QStringList usual;
    for (const Target& target : usualTargets(test))
        usual << QString::fromStdString(ask::windowText(target, test, m_book.units()));
    m_usual->setVisible(!usual.isEmpty());
    m_usual->setText(tr("As usual: %1").arg(usual.join(QStringLiteral(", "))));
}

} // namespace knot::app
