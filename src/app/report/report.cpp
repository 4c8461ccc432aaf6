#include "app/report/report.h"

#include "app/picture/face.h"
#include "app/pictures/pictures.h"
#include "app/report/html_parts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/words.h"
#include "core/ask/sentence.h"
#include "core/rack/club_line.h"
#include "core/rack/difference.h"
#include "core/rack/figures.h"
#include "core/record/structure.h"
#include "core/record/text/moment.h"
#include "core/record/text/number_text.h"
#include "core/words/answer.h"
#include "core/words/decide.h"
#include "core/words/ledger.h"
#include "core/words/message.h"
#include "core/words/remarks/remarks.h"
#include "core/words/remarks/shot_remarks.h"
#include "core/words/tried.h"

#include <QCoreApplication>

#include <QPainter>

#include <algorithm>
#include <cmath>
#include <utility>

namespace knot::app {
namespace {

using html::escaped;
using html::listed;
using html::paragraph;
using html::row;
using record::Metric;
using record::MetricFormat;

class Writer {
public:
    explicit Writer(const Reported& of)
        : m_of(of)
        , m_test(of.test)
        , m_reading(of.reading) {}

    Report all() {
        m_report.title = QString::fromStdString(m_test.title);
        forPlayer();
        secondPage();
        if (const auto chosen = chosenClub())
            forBuilder(*chosen);
        if (m_of.look.appendix)
            appendix();
        return std::move(m_report);
    }

private:
    void add(const QString& html) { m_report.body += html; }
    void heading(int level, const QString& text) { add(QStringLiteral("<h%1>%2</h%1>\n").arg(level).arg(text)); }
    void newPage() { add(QStringLiteral("<div class=\"page\" style=\"page-break-before:always\"></div>\n")); }

    void letterhead() {
        const ReportLook& look = m_of.look;
        if (look.shop.trimmed().isEmpty() && look.mark.isNull())
            return;
        m_report.mark = look.mark;
        const QString mark = look.mark.isNull() ? QString() : QStringLiteral("<img src=\"mark:\" alt=\"\"><br>\n");
        add(QStringLiteral("<p class=\"shop\">%1%2</p>\n")
                .arg(mark, look.shop.trimmed().toHtmlEscaped().replace(u'\n', QStringLiteral("<br>"))));
    }

    void forPlayer() {
        letterhead();
        QStringList who{escaped(m_test.title)};
        if (!m_test.players.empty())
            who << escaped(m_test.playerNames());
        if (!m_test.createdAt.empty())
            who << escaped(record::Moment(m_test.createdAt).shown());
        add(QStringLiteral("<p class=\"shop\">%1</p>\n").arg(who.join(QStringLiteral(" · "))));
        whatToDo();
        if (m_reading.bySetting.empty()) // of several players each has pictures of their own on the next page
            firstPicture();
        if (!m_test.card.primary.empty()) { // what was not asked is not said
            heading(2, tr("What was asked"));
            add(paragraph(escaped(ask::textOf(ask::sentenceOf(m_test, m_of.units)))));
        }
        whatWasTried();
        heading(2, tr("What was found"));
        answers();
        howItWasDone();
        expectedAndSaid();
    }

    // In one line, and why in two.
    void whatToDo() {
        const std::string decided = words::decisionText(m_test);
        const record::Decision& d = m_test.decision;
        heading(1, decided.empty() ? tr("Nothing is decided yet.") : escaped(decided) + QStringLiteral("."));
        QStringList why;
        if (!d.reason.empty())
            why << escaped(record::upperFirst(d.reason)) + (d.reason.back() == '.' ? QString() : QStringLiteral("."));
        else
            for (const words::Answer& answer : words::answersOf(m_reading, m_of.units))
                if (why.size() < 2)
                    why << escaped(answer.text);
        if (!decided.empty() && words::isOnBet(m_test, &m_reading))
            why << tr("On a bet: one run each, or a screening, finds nothing.");
        add(paragraph(why.join(QStringLiteral(" "))));
        QStringList more;
        for (const auto& [what, said] : {std::pair(tr("Price"), d.price), {tr("Next time look at"), d.watch}})
            if (!said.empty())
                more << what + QStringLiteral(": ") + escaped(said);
        add(paragraph(more.join(QStringLiteral(" · "))));
    }

    Looked lookedAt(const judge::Case& subject, const judge::Reading& reading, const record::Structure& of) const {
        const Metric metric = reading.card.primary.empty() ? Metric::carry : reading.card.primary.front().metric;
        const judge::BuildAt other(reading.baseline == judge::BuildAt(0) && reading.builds.size() > 1 ? 1 : 0);
        return {subject, reading, metric, other, record::OutcomeKind::average, m_of.units, of};
    }

    void firstPicture() {
        const record::Structure structure = record::structureOf(m_of.subject.seen());
        const Looked looked = lookedAt(m_of.subject, m_reading, structure);
        for (const auto kind : {PictureKind::landing, PictureKind::cords})
            if (std::shared_ptr<Picture> picture = pictureOf(kind, looked)) {
                const QString name = kind == PictureKind::landing ? tr("Where they came down") : tr("Shot by shot");
                place(kind, picture, name);
                return add(QStringLiteral("<p class=\"shop\">%1.</p>\n").arg(name));
            }
    }

    void place(PictureKind kind, const std::shared_ptr<Picture>& picture, const QString& name) {
        const auto rows = static_cast<int>(m_reading.builds.size());
        const int height = kind == PictureKind::landing || kind == PictureKind::window ? 300
                           : kind == PictureKind::flight                               ? 220
                                                         : std::clamp(50 + 50 * rows, 150, 290);
        add(QStringLiteral("<p><img src=\"picture:%1\" alt=\"%2\"></p>\n")
                .arg(m_report.pictures.size())
                .arg(picture->finding().toHtmlEscaped()));
        m_report.pictures.push_back({name, picture->finding(), picture, QSize(700, height)});
    }

    // Of a sitting as it came: every club, what was seen and felt, and why it went.
    void whatWasTried() {
        if (!m_test.turns.empty() || m_test.seal.isClosed())
            return;
        QString rows;
        for (const words::Tried& one : words::tried(m_test, m_of.units)) {
            QStringList said;
            for (const std::string& seen : one.seen)
                said << escaped(seen);
            if (!one.said.empty())
                said << escaped(record::upperFirst(one.said));
            if (!one.left.empty())
                said << tr("<b>Left:</b> %1").arg(escaped(one.left));
            rows += QStringLiteral("<tr><td width=\"22%\"><b>%1</b></td><td>%2</td></tr>\n")
                        .arg(escaped(one.name), said.join(QStringLiteral("<br>")));
        }
        heading(2, tr("What was tried, in this order"));
        add(QStringLiteral("<table cellpadding=\"4\">\n%1</table>\n").arg(rows));
    }

    // A glyph and a sentence an outcome; of one run each the bets.
    void answers() {
        const words::Found all = words::foundOf(m_reading, m_of.units);
        if (!all.runs.empty()) {
            for (const std::string& sentence : all.runs)
                add(paragraph(escaped(sentence)));
            return;
        }
        const auto answered = words::answersOf(m_reading, m_of.units);
        if (m_test.card.primary.empty())
            add(paragraph(tr("Nothing was declared beforehand, so nothing is a finding; what was seen:")));
        for (const words::Answer& answer : answered)
            add(QStringLiteral("<p><img src=\"verdict:%1\" alt=\"\"> <b>%2</b></p>\n")
                    .arg(static_cast<int>(answer.verdict))
                    .arg(escaped(answer.text)));
    }

    void howItWasDone() {
        heading(2, tr("How it was done"));
        const bool isRun = m_reading.roundsDone < 2;
        const auto flukes = static_cast<int>(std::lround(100 * m_reading.card.alpha));
        add(paragraph(
            escaped(words::fairnessLine(m_test, m_reading)) +
            (isRun || m_test.card.primary.empty()
                 ? QString()
                 : tr(" Of 100 such tests without any gap, at most %1 would say there is one.").arg(flukes))));
        keepInMind();
    }

    void expectedAndSaid() {
        QStringList said;
        for (const words::ExpectedLine& one : words::expectedLines(m_reading))
            said << tr("Expected of %1: %2; found: %3.").arg(escaped(one.what), escaped(one.said), escaped(one.found));
        for (const std::string& sentence : words::choiceSentences(m_test))
            said << escaped(sentence);
        if (const std::string guessed = words::guessSentence(m_reading); !guessed.empty())
            said << escaped(guessed);
        if (said.isEmpty())
            return;
        heading(2, tr("What was expected and said"));
        add(paragraph(said.join(QStringLiteral(" "))));
    }

    // Declared outcomes as they were settled; what was not declared only where it is real.
    void found() {
        const words::Found all = words::foundOf(m_reading, m_of.units);
        auto list = [](const std::vector<std::string>& sentences, std::size_t from = 0) {
            QStringList items;
            for (std::size_t i = from; i < sentences.size(); ++i)
                items << escaped(sentences[i]);
            return listed(items);
        };
        if (!all.runs.empty()) {
            add(paragraph(escaped(all.runs.front())));
            return add(list(all.runs, 1));
        }
        add(list(all.settled));
        if (!all.open.empty())
            add(paragraph(tr("Not settled by these shots:")) + list(all.open));
        if (!all.held.empty())
            add(paragraph(tr("On another day:")) + list(all.held));
        if (!all.besides.empty())
            add(paragraph(tr("Also seen, without having been asked:")) + list(all.besides));
    }

    void bet() {
        for (const words::BestPicture& picture : words::bestPictures(m_reading, m_of.units)) {
            if (picture.isSettled)
                continue;
            QStringList items;
            for (const words::BestLine& line : picture.lines)
                items << escaped(words::betText(m_reading, line));
            heading(3, tr("If one must be chosen now, by %1").arg(escaped(record::outcomeLabel(picture.outcome))));
            add(listed(items));
            add(paragraph(tr("That is a bet, not a finding. %1").arg(escaped(picture.further))));
        }
    }

    void keepInMind() {
        QStringList cautions;
        for (const words::Remark& remark : words::checks(m_reading))
            if (remark.severity != judge::Severity::note)
                cautions << escaped(remark.text);
        add(listed(cautions));
    }

    void secondPage() {
        newPage();
        heading(2, tr("In numbers"));
        found();
        bet();
        averages();
        heading(2, tr("What the shots look like"));
        if (m_reading.bySetting.empty())
            return picturesOf(m_of.subject, m_reading);
        const auto settings = m_of.subject.settings();
        for (std::size_t i = 0; i < m_reading.bySetting.size(); ++i) {
            add(paragraph(QStringLiteral("<b>%1</b>").arg(escaped(m_reading.bySetting[i].name))));
            picturesOf(m_of.subject.partOf(settings[i]), m_reading.bySetting[i].reading);
        }
    }

    // But for the one that stands on the first page.
    void picturesOf(const judge::Case& subject, const judge::Reading& reading) {
        const record::Structure structure = record::structureOf(subject.seen());
        const Looked looked = lookedAt(subject, reading, structure);
        const bool isDriver = picture::faceKind(subject.seen()) == picture::FaceKind::driver;
        for (const auto& [kind, name] : {std::pair(PictureKind::landing, tr("Where they came down")),
                                         {PictureKind::cords, tr("Shot by shot")},
                                         {PictureKind::flight, tr("How they flew")},
                                         {PictureKind::bag, tr("What carries how far")},
                                         {PictureKind::window, tr("What this swing could reach")}}) {
            const bool isPlaced =
                m_reading.bySetting.empty() &&
                std::ranges::any_of(m_report.pictures, [&](const auto& one) { return one.name == name; });
            if (isPlaced || (kind == PictureKind::window && !isDriver))
                continue;
            if (std::shared_ptr<Picture> picture = pictureOf(kind, looked)) {
                heading(3, name);
                place(kind, picture, name);
                if (kind == PictureKind::bag || kind == PictureKind::window)
                    add(paragraph(picture->finding().toHtmlEscaped()));
            }
        }
    }

    void averages() {
        std::vector<Metric> metrics;
        for (const Metric metric : {Metric::carry, Metric::side, Metric::ballSpeed, Metric::launch, Metric::spin,
                                    Metric::descent, Metric::clubSpeed})
            if (std::ranges::find(m_reading.metrics, metric) != m_reading.metrics.end())
                metrics.push_back(metric);
        if (metrics.empty())
            return;
        heading(3, tr("Averages and scatter"));
        if (m_reading.bySetting.empty())
            add(averagesTable(m_reading, metrics));
        for (const judge::OfSetting& setting : m_reading.bySetting)
            add(paragraph(QStringLiteral("<b>%1</b>").arg(escaped(setting.name))) +
                averagesTable(setting.reading, metrics));
        fromShots();
    }

    QString averagesTable(const judge::Reading& reading, const std::vector<Metric>& metrics) const {
        QStringList heads{tr("club"), tr("shots")};
        for (const Metric metric : metrics)
            heads << escaped(record::info(metric).label) + QStringLiteral("<br>") +
                         escaped(MetricFormat(metric, m_of.units).unitText());
        QString html = row(heads, "th");
        for (judge::BuildAt b; b < reading.builds.size(); ++b) {
            QStringList cells{escaped(reading.builds[b].name), QString::number(reading.builds[b].counted)};
            for (const Metric metric : metrics) {
                const judge::Summary* summary = reading.summaryOf(metric, b);
                const MetricFormat format(metric, m_of.units);
                cells << (summary == nullptr
                              ? QStringLiteral("–")
                              : escaped(format.number(summary->mean)) +
                                    (summary->sd ? QStringLiteral("<br><span class=\"shop\">±\u00a0%1</span>")
                                                       .arg(escaped(format.number(*summary->sd)))
                                                 : QString()));
            }
            html += row(cells);
        }
        return QStringLiteral("<table cellpadding=\"4\">\n%1</table>\n").arg(html);
    }

    // Of what single shots tell the part that people ask for.
    void fromShots() {
        QStringList said;
        for (const words::Remark& remark : words::shotRemarks(m_reading, m_of.units))
            if (remark.code == "beats" || remark.code == "ten_shots" || remark.code == "extremes")
                said << escaped(remark.text);
        if (!said.isEmpty())
            add(listed(said));
    }

    // The club that was decided on, where it can be built: not of a tag.
    std::optional<record::BuildAt> chosenClub() const {
        if (!words::namesClub(m_test.decision.what) || m_test.seal.isClosed())
            return std::nullopt;
        return m_test.buildIndex(m_test.decision.club);
    }

    void forBuilder(record::BuildAt chosen) {
        const record::Build& build = m_test.builds[chosen];
        newPage();
        heading(2, tr("For the builder: %1").arg(escaped(build.name)));
        const rack::Figures figures = rack::figuresOf(build.club);
        QString html = row({tr("what"), tr("as tested"), tr("within")}, "th");
        auto put = [&](const QString& what, const QString& value, const QString& within) {
            if (!value.isEmpty())
                html += row({what, value, within});
        };
        auto number = [](const std::optional<double>& value, int decimals, const char* unit) {
            return value ? QString::fromStdString(record::fixed(*value, decimals)) + QString::fromUtf8(unit)
                         : QString();
        };
        put(tr("head"), escaped(rack::partText(build.club.head)), {});
        put(tr("shaft"), escaped(rack::partText(build.club.shaft)), {});
        put(tr("grip"), escaped(rack::partText(build.club.grip)), {});
        put(tr("length"), figures.length ? escaped(rack::lengthText(*figures.length, m_of.units.length)) : QString(),
            tr("3 mm"));
        put(tr("loft"), number(figures.loft, 1, "°"), tr("0.5°"));
        put(tr("lie"), number(figures.lie, 1, "°"), tr("0.5°"));
        put(tr("sleeve"), escaped(build.club.sleeve.setting), {});
        put(tr("lead at the head"), build.club.lead > 0 ? number(build.club.lead, 1, " g") : QString(), tr("0.5 g"));
        put(tr("swing weight"), figures.swingWeight ? escaped(rack::swingWeightText(*figures.swingWeight)) : QString(),
            tr("1 point"));
        put(tr("whole mass"), number(figures.mass, 0, " g"), tr("3 g"));
        put(tr("balance point"),
            figures.balance ? escaped(rack::lengthText(*figures.balance, m_of.units.length)) : QString(), tr("5 mm"));
        put(tr("inertia about the hands"), number(figures.inertia, 3, " kg·m²"), {});
        add(QStringLiteral("<table cellpadding=\"4\">\n%1</table>\n").arg(html));
        againstOld(chosen);
        heading(3, tr("In the workshop"));
        add(listed(
            {tr("Measure loft, lie, length and swing weight before and after; a label is no measurement."),
             tr("Bend only heads that allow it, and no farther than their maker says."),
             tr("Glue and solvents: gloves and fresh air. Heat frees a tip and harms a shaft: as little as will do."),
             tr("A club that was taken apart is tried with easy swings first, away from people.")}));
    }

    void againstOld(record::BuildAt chosen) {
        const record::BuildAt old = m_test.baselineIndex();
        if (old == chosen)
            return;
        const auto sheet =
            rack::differenceSheet({m_test.builds[old], m_test.builds[chosen]}, record::TestKind::own, m_of.units);
        if (sheet.empty())
            return;
        heading(3, tr("What differs from %1").arg(escaped(m_test.builds[old].name)));
        QString html = row({tr("what"), escaped(m_test.builds[old].name), escaped(m_test.builds[chosen].name)}, "th");
        for (const rack::Difference& difference : sheet)
            html +=
                row({escaped(difference.what +
                             (difference.unit.empty() || difference.unit == "points" ? "" : ", " + difference.unit)),
                     escaped(difference.values[0]), escaped(difference.values[1])});
        add(QStringLiteral("<table cellpadding=\"4\">\n%1</table>\n").arg(html));
    }

    void appendix() {
        const QString before = std::exchange(m_report.body, {});
        reckoned();
        const QString all = std::exchange(m_report.body, before);
        if (all.isEmpty())
            return; // nothing declared, planned, changed or sealed
        newPage();
        heading(2, tr("Appendix"));
        add(all);
    }

    void reckoned() {
        for (const words::LedgerLine& line : words::ledger(m_reading, m_of.units)) {
            if (line.role != judge::Role::primary)
                continue;
            heading(3, escaped(line.sentence));
            QString html;
            for (const words::ArithmeticStep& step : words::arithmetic(m_reading, line, m_of.units))
                html += QStringLiteral("<tr><td width=\"30%\">%1</td><td align=\"right\">%2</td><td>%3</td></tr>\n")
                            .arg(escaped(step.what), escaped(step.value), escaped(step.how));
            add(QStringLiteral("<table cellpadding=\"3\">\n%1</table>\n").arg(html));
        }
        QStringList order;
        for (const record::PlannedTurn& turn : m_test.turns)
            if (turn.build < m_test.builds.size())
                order << tr("lap %1: %2, %3")
                             .arg(turn.round)
                             .arg(escaped(m_test.builds[turn.build].name))
                             .arg(turn.shots);
        if (!order.isEmpty()) {
            heading(3, tr("The order"));
            add(paragraph(order.join(QStringLiteral("; "))));
        }
        QStringList amended;
        for (const record::Amendment& amendment : m_test.amendments)
            amended << escaped(record::Moment(amendment.at).shown() + ": " + amendment.text);
        if (!amended.isEmpty()) {
            heading(3, tr("Changed after the first shot"));
            add(listed(amended));
        }
        if (m_test.seal.wasMade()) {
            heading(3, m_test.seal.isBag() ? tr("The tags") : tr("The seal"));
            if (!m_test.seal.isBag())
                add(paragraph(tr("SHA-256 of the sealed text: %1").arg(escaped(m_test.seal.commitment))));
            if (const std::string proof = words::sealSentence(m_test); !proof.empty())
                add(paragraph(escaped(proof)));
            if (!m_test.seal.isClosed() && !m_test.seal.sealedText.empty())
                add(QStringLiteral("<pre>%1</pre>\n").arg(escaped(m_test.seal.sealedText)));
        }
    }

    const Reported& m_of;
    const record::Test& m_test;
    const judge::Reading& m_reading;
    Report m_report;
};

} // namespace

std::optional<judge::Verdict> Report::verdictOf(const QString& source) {
    if (!source.startsWith(QStringLiteral("verdict:")))
        return std::nullopt;
    return static_cast<judge::Verdict>(std::clamp(source.section(u':', 1).toInt(), 0, 5));
}

void Report::drawGlyph(QPainter& painter, const QRectF& box, judge::Verdict verdict) {
    const OnPaper paper;
    const double side = 26; // the glyphs' own, in pixels
    painter.save();
    painter.translate(box.center());
    painter.scale(box.width() / side, box.width() / side);
    drawVerdict(painter, QRectF(-side / 2, -side / 2, side, side), verdict);
    painter.restore();
}

Report reportOf(const Reported& reported) {
    const OnPaper paper;
    return Writer(reported).all();
}

} // namespace knot::app
