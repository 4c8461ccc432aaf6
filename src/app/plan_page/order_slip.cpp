#include "app/plan_page/order_slip.h"

#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/plan/planner.h"
#include "core/plan/schedule.h"
#include "core/plan/seal.h"
#include "core/record/text/number_text.h"
#include "files/base/file.h"
#include "files/test_json.h"

#include <QBuffer>
#include <QCloseEvent>
#include <QPageSize>
#include <QPdfWriter>
#include <QPushButton>
#include <QShortcut>
#include <QTextBrowser>
#include <QTextDocument>
#include <QVBoxLayout>

#include <utility>

namespace knot::app {
namespace {

QString named(const std::string& text) {
    return QString::fromStdString(text).toHtmlEscaped();
}

QString lapsTable(const record::Test& test) {
    QString html = QStringLiteral("<table cellspacing='0' cellpadding='4'>");
    int round = 0;
    for (std::size_t i = 0; i < test.turns.size(); ++i) {
        const auto& turn = test.turns[i];
        if (turn.round != round) {
            html += (round == 0 ? QString() : QStringLiteral("</tr>")) +
                    OrderSlip::tr("<tr><td><b>lap %1</b></td>").arg(turn.round);
            round = turn.round;
        }
        html += QStringLiteral("<td>%1 ×%2%3</td>")
                    .arg(named(test.builds[turn.build].name))
                    .arg(turn.shots)
                    .arg(plan::needsHandOver(test.turns, i) ? OrderSlip::tr(" (hand over anew)") : QString());
    }
    return html + QStringLiteral("</tr></table>");
}

} // namespace

QString maskingAdvice(bool alone) {
    const QString masking =
        OrderSlip::tr("Tape over bands and labels, the same grip on each, the tag on the butt end.");
    if (!alone)
        return masking + QStringLiteral(" ") +
               OrderSlip::tr("The helper hands over face down and says nothing but the tag.");
    return masking + QStringLiteral(" ") +
           OrderSlip::tr("Alone: put the tags on, mix the clubs in a bag with your eyes shut, draw one, hit the stint "
                         "without looking at the butt, and read the tag only then. Draw each club once a lap.");
}

QString orderSlipHtml(const record::Test& test, const std::vector<TagOfClub>& tags, const QString& words) {
    QString html = OrderSlip::tr("<h2>Order slip</h2><p>%1</p>").arg(named(test.title));
    if (!tags.empty()) {
        html += OrderSlip::tr("<h3>For the helper alone: which club gets which tag</h3><table cellpadding='4'>");
        for (const auto& [tag, club] : tags)
            html += QStringLiteral("<tr><td><b>%1</b></td><td>%2</td></tr>").arg(named(tag), named(club));
        html += QStringLiteral("</table>");
    }
    if (!words.isEmpty())
        html +=
            OrderSlip::tr("<h3>The key of the seal</h3><p><big><tt>%1</tt></big></p><p>These ten words open it, and "
                          "nothing else does. They stand nowhere but here: print this slip or write them down, and "
                          "keep it from the player.</p>")
                .arg(words.section(QLatin1Char(' '), 0, 4).toHtmlEscaped() + QStringLiteral("<br>") +
                     words.section(QLatin1Char(' '), 5).toHtmlEscaped());
    html += QStringLiteral("<p>%1</p>").arg(maskingAdvice(false));
    html += OrderSlip::tr("<h3>Order</h3><p>%1%2 swings in about %3 minutes.%4</p>")
                .arg(test.plan.warmUp > 0 ? OrderSlip::tr("%1 to warm up, then ").arg(test.plan.warmUp) : QString())
                .arg(plan::swingsOf(test.plan, test.turns) - test.plan.warmUp)
                .arg(QString::fromStdString(record::fixed(plan::minutesOf(test.plan, test.turns), 0)),
                     test.plan.restEvery > 0 ? OrderSlip::tr(" Rest after every %1 swings.").arg(test.plan.restEvery)
                                             : QString());
    html += lapsTable(test);
    if (!test.seal.commitment.empty())
        html +=
            OrderSlip::tr("<h3>Seal</h3><p>SHA-256 of the sealed assignment:<br><tt>%1</tt></p>"
                          "<p>After the reveal the program saves the sealed text. <tt>sha256sum</tt> gives this number "
                          "for it: nothing was switched.</p>")
                .arg(named(test.seal.commitment));
    html += OrderSlip::tr("<p>SHA-256 of the test sheet as it stands:<br><tt>%1</tt></p>")
                .arg(QString::fromStdString(plan::sha256(files::declarationText(test))));
    html +=
        OrderSlip::tr("<p>Clear space around and above the swing; nobody in front or beside. Check balls and heads for "
                      "cracks and the hosel screw for its maker's torque. Stop on pain.</p>");
    return html;
}

OrderSlip::OrderSlip(const QString& html, Kind kind, QWidget* parent)
    : QWidget(parent, Qt::Window)
    , m_waits(kind == Kind::words) {
    setObjectName(QStringLiteral("orderSlip"));
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Order slip – for the helper"));
    resize(560, 720);
    auto* text = new QTextBrowser;
    text->setObjectName(QStringLiteral("slipText"));
    text->setHtml(html);
    auto* column = new QVBoxLayout(this);
    column->addWidget(text, 1);
    auto* row = new QHBoxLayout;
    auto add = [&](const QString& label, const char* name) {
        auto* button = new QPushButton(label);
        button->setObjectName(QLatin1String(name));
        row->addWidget(button);
        return button;
    };
    row->addStretch();
    connect(add(tr("&Print…"), "printSlip"), &QPushButton::clicked, this, [this, html] { emit printRequested(html); });
    connect(add(tr("To a &file…"), "saveSlip"), &QPushButton::clicked, this,
            [this, html] { emit saveRequested(html); });
    if (m_waits) {
        auto* ask = plainLabel();
        ask->setObjectName(QStringLiteral("slipAsks"));
        ask->setWordWrap(true);
        ask->setText(
            tr("Nothing is sealed yet. Without these words the clubs can only be named by hand: print them, or "
               "write them down."));
        column->addWidget(ask);
        connect(add(tr("&Leave it open"), "leaveOpen"), &QPushButton::clicked, this, &QWidget::close);
        auto* keep = add(tr("The words stand on paper: &seal"), "keepSeal");
        connect(keep, &QPushButton::clicked, this, [this] {
            m_waits = false;
            emit kept();
            close();
        });
        keep->setFocus();
    }
    column->addLayout(row);
    connect(new QShortcut(Qt::Key_Escape, this), &QShortcut::activated, this, &QWidget::close);
}

void OrderSlip::closeEvent(QCloseEvent* event) {
    if (std::exchange(m_waits, false))
        emit left();
    QWidget::closeEvent(event);
}

QString OrderSlip::print(const QString& html, const QString& path) {
    QBuffer pages;
    pages.open(QIODevice::WriteOnly);
    QPdfWriter writer(&pages);
    writer.setPageSize(QPageSize(QPageSize::A4));
    writer.setResolution(150);
    QTextDocument document;
    document.setDefaultFont(typeface(26));
    document.setHtml(html);
    document.setPageSize(QSizeF(writer.width(), writer.height()));
    document.print(&writer);
    const QByteArray& bytes = pages.data();
    const auto written = files::writeFile(path.toStdString(), bytes.toStdString());
    return written ? QString() : QString::fromStdString(files::sentence(written.error()));
}

} // namespace knot::app
