#include "app/rack_page/rack_page.h"

#include "app/form/number_field.h"
#include "app/form/panel.h"
#include "app/rack_page/club_editor.h"
#include "app/rack_page/leads.h"
#include "app/session/bay_run.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/test_in_hand.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/rack/difference.h"
#include "core/record/number_text.h"

#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPainter>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QShortcut>
#include <QVBoxLayout>

#include <algorithm>

namespace knot::app {
namespace {

using record::Build;
using record::Metric;
using record::Test;

constexpr std::size_t mostClubs = 12;

QIcon tagIcon(std::size_t build) {
    QPixmap pixmap(28, 28);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    painter.setRenderHint(QPainter::Antialiasing);
    drawTag(painter, QRectF(5, 5, 18, 18), build);
    pixmap.setDevicePixelRatio(2);
    QIcon icon(pixmap);
    icon.addPixmap(pixmap, QIcon::Selected); // else it is tinted
    return icon;
}

QString freshName(const Test& test, QString stem) {
    if (!test.buildIndex(stem.toStdString()))
        return stem;
    for (int n = 2;; ++n)
        if (const QString name = QStringLiteral("%1 %2").arg(stem).arg(n); !test.buildIndex(name.toStdString()))
            return name;
}

// A name short enough for the head of a column.
QString columnHead(const std::string& name, std::size_t columns) {
    const qsizetype most = columns > 6 ? 8 : columns > 3 ? 14 : 22;
    const QString text = QString::fromStdString(name);
    return (text.size() > most ? text.left(most - 1) + QStringLiteral("…") : text).toHtmlEscaped();
}

QPushButton* button(const QString& text, const char* name) {
    auto* made = new QPushButton(text);
    made->setObjectName(QLatin1String(name));
    made->setAutoDefault(true);
    return made;
}

} // namespace

RackPage::RackPage(const TestInHand& hand, Declaring& declaring, BayRun& bay, Book& book, QWidget* parent)
    : Page(parent)
    , m_hand(hand)
    , m_declaring(declaring)
    , m_bay(bay)
    , m_book(book) {
    auto* grid = new QGridLayout(this);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setSpacing(2 * size::grid);
    grid->addWidget(buildList(), 0, 0, 2, 1);
    QVBoxLayout* column = nullptr;
    Panel* editor = headedPanel({}, column);
    m_editor = new ClubEditor(m_hand, m_declaring, m_book);
    column->addWidget(m_editor);
    m_starting = richLabel(captionLabel("starting"));
    m_starting->setTextInteractionFlags(Qt::LinksAccessibleByKeyboard | Qt::LinksAccessibleByMouse);
    column->addWidget(m_starting);
    connect(m_starting, &QLabel::linkActivated, this, [this] {
        m_tables->setVisible(!m_tables->isVisible());
        editTables();
    });
    grid->addWidget(editor, 0, 1);
    auto* below = new QHBoxLayout;
    below->setSpacing(2 * size::grid);
    below->addWidget(buildDifferences(), 3);
    m_screening = buildScreening();
    below->addWidget(m_screening, 2);
    m_tables = buildStarting();
    m_tables->hide();
    below->addWidget(m_tables, 2);
    grid->addLayout(below, 1, 1);
    grid->setColumnStretch(0, 2);
    grid->setColumnStretch(1, 7);
    grid->setRowStretch(1, 1);
    buildKeys();
    wire();
}

QWidget* RackPage::buildList() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("Clubs"), column);
    m_list = new QListWidget;
    m_list->setObjectName(QStringLiteral("clubs"));
    m_list->setAccessibleName(tr("Clubs on test"));
    m_list->setFrameShape(QFrame::NoFrame);
    m_list->setSpacing(2);
    m_list->setWordWrap(true);
    m_list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    column->addWidget(m_list, 1);
    m_listText = captionLabel("clubsText");
    column->addWidget(m_listText);
    auto* row = new QHBoxLayout;
    auto* add = button(tr("Add"), "addClub");
    auto* copy = button(tr("Copy"), "copyClub");
    row->addWidget(add);
    row->addWidget(copy);
    column->addLayout(row);
    connect(add, &QPushButton::clicked, this, [this] { addClub(false); });
    connect(copy, &QPushButton::clicked, this, [this] { addClub(true); });
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
    m_shot = new NumberField({.low = -1e6, .high = 1e6});
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

QWidget* RackPage::buildStarting() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("Where to start looking"), column);
    column->addWidget(captionLabel("tablesText", tr("By driver speed alone, m/s: from, to, grams from, to, flex")));
    m_speedTable = new QPlainTextEdit;
    m_speedTable->setObjectName(QStringLiteral("speedTable"));
    m_speedTable->setAccessibleName(tr("Bracket by speed"));
    column->addWidget(m_speedTable, 3);
    column->addWidget(captionLabel("tempoText", tr("With tempo and transition: word, grams more, flex steps")));
    m_tempoTable = new QPlainTextEdit;
    m_tempoTable->setObjectName(QStringLiteral("tempoTable"));
    m_tempoTable->setAccessibleName(tr("What tempo adds"));
    column->addWidget(m_tempoTable, 2);
    m_tableFault = captionLabel("tableFault");
    column->addWidget(m_tableFault);
    for (QPlainTextEdit* table : {m_speedTable, m_tempoTable}) {
        table->setTabChangesFocus(true);
        table->setFixedHeight(54); // the fields above keep their height
        connect(table, &QPlainTextEdit::textChanged, this, [this] {
            std::string reason;
            const std::string speed = m_speedTable->toPlainText().toStdString();
            const std::string tempo = m_tempoTable->toPlainText().toStdString();
            const bool good = rack::speedTableFrom(speed, reason) && rack::tempoTableFrom(tempo, reason);
            m_tableFault->setText(good ? tr("Kept with the logbook. Only ever a bracket to start from.")
                                       : QString::fromStdString(reason));
            if (good && m_tables->isVisible()) {
                m_book.setSetting("start_speed", QString::fromStdString(speed));
                m_book.setSetting("start_tempo", QString::fromStdString(tempo));
                refreshStarting();
            }
        });
    }
    return panel;
}

rack::StartingTables RackPage::tables() {
    rack::StartingTables own = rack::usualStartingTables();
    std::string reason;
    if (const QString text = m_book.setting("start_speed"); !text.isEmpty())
        own.speed = rack::speedTableFrom(text.toStdString(), reason).value_or(own.speed);
    if (const QString text = m_book.setting("start_tempo"); !text.isEmpty())
        own.tempo = rack::tempoTableFrom(text.toStdString(), reason).value_or(own.tempo);
    return own;
}

void RackPage::editTables() {
    const auto own = tables();
    const QSignalBlocker quietSpeed(m_speedTable);
    const QSignalBlocker quietTempo(m_tempoTable);
    m_speedTable->setPlainText(QString::fromStdString(rack::speedTableText(own.speed)));
    m_tempoTable->setPlainText(QString::fromStdString(rack::tempoTableText(own.tempo)));
    m_tableFault->setText(tr("Kept with the logbook. Only ever a bracket to start from."));
}

void RackPage::refreshStarting() {
    const record::Player profile = m_hand.test().firstPlayer();
    const QString link = tr(" <a href='tables' style='color:%1'>The tables</a>").arg(colours().link.name());
    auto words = [](const rack::Bracket& bracket) {
        return tr("%1 to %2 g, %3")
            .arg(bracket.fromGrams)
            .arg(bracket.toGrams)
            .arg(QString::fromStdString(bracket.flex).toHtmlEscaped());
    };
    const auto own = tables();
    const auto speed = profile.clubSpeed ? rack::bySpeed(own, *profile.clubSpeed) : std::nullopt;
    if (!speed)
        return m_starting->setText(tr("A driver speed of the player gives a shaft weight and flex to start from.") +
                                   link);
    const auto tempo = *rack::bySpeedAndTempo(own, *profile.clubSpeed, profile.tempo);
    m_starting->setText(
        tr("To start from, for a wood: %1 by speed; %2 with tempo and transition.").arg(words(*speed), words(tempo)) +
        link);
}

void RackPage::buildKeys() {
    auto key = [&](const QKeySequence& keys, auto action) {
        auto* shortcut = new QShortcut(keys, m_list);
        shortcut->setContext(Qt::WidgetShortcut);
        connect(shortcut, &QShortcut::activated, this, action);
    };
    key(Qt::Key_A, [this] { addClub(false); });
    key(Qt::Key_C, [this] { addClub(true); });
    key(Qt::Key_B, [this] { makeBaseline(); });
    key(Qt::Key_X, [this] { m_reason->setFocus(); });
    key(Qt::Key_Delete, [this] { removeClub(); });
    key(Qt::Key_Return, [this] { m_editor->nameField()->setFocus(); });
}

void RackPage::wire() {
    connect(m_list, &QListWidget::currentRowChanged, this, [this](int row) {
        if (row >= 0) {
            m_editor->offerParts();
            m_editor->setBuild(record::BuildAt(static_cast<std::size_t>(row)));
        }
    });
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

void RackPage::addClub(bool copy) {
    if (!m_hand.has())
        return;
    if (m_hand.isSealed())
        return m_declaring.refuse(tr("The clubs are sealed; a club can join only after the reveal, in a new test."));
    const Test& test = m_hand.test();
    if (test.builds.size() >= mostClubs)
        return m_declaring.refuse(
            tr("%1 clubs are the most that one test can take. Screen them first, and test those left.").arg(mostClubs));
    const int row = m_list->currentRow();
    Build build = copy && row >= 0 ? test.builds[static_cast<std::size_t>(row)] : Build{};
    build.struckOff.clear();
    build.name = freshName(test, copy && row >= 0 ? QString::fromStdString(build.name) : tr("Club")).toStdString();
    m_declaring.change(tr("the clubs"), [&](Test& changed) {
        changed.builds.push_back(build);
        changed.plan.turns.clear();
    });
    m_list->setCurrentRow(m_list->count() - 1);
    m_editor->nameField()->setFocus();
    m_editor->nameField()->selectAll();
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
    m_declaring.change(tr("what was struck off"), [&](Test& test) {
        auto& own = test.builds[static_cast<std::size_t>(row)].struckOff;
        own = own.empty() ? (reason.isEmpty() ? tr("no reason given") : reason).toStdString() : std::string();
    });
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
    const auto& clubs = clubsOf(test);
    const int row = std::max(0, m_list->currentRow());
    const QSignalBlocker quiet(m_list);
    m_list->clear();
    const bool against = test.card.comparison == record::Comparison::againstBaseline && !test.builds.empty();
    const auto named = std::ranges::find(clubs, test.card.baseline, &Build::name);
    const std::size_t baseline = named == clubs.end() ? 0 : static_cast<std::size_t>(named - clubs.begin());
    for (std::size_t b = 0; b < clubs.size(); ++b) {
        QString text = QString::fromStdString(clubs[b].name);
        if (against && b == baseline && test.stage == record::Stage::test)
            text += tr("\nmy club");
        if (!clubs[b].tag.empty() && !m_hand.isSealed())
            text += tr("\nwas %1").arg(QString::fromStdString(clubs[b].tag));
        if (!clubs[b].struckOff.empty())
            text += tr("\nout: %1").arg(QString::fromStdString(clubs[b].struckOff));
        // Shapes and colours of tags stay with the tags.
        auto* item = m_hand.isSealed() ? new QListWidgetItem(text) : new QListWidgetItem(tagIcon(b), text);
        if (!clubs[b].struckOff.empty())
            item->setForeground(colours().faint);
        m_list->addItem(item);
    }
    if (m_list->count() > 0)
        m_list->setCurrentRow(std::min(row, m_list->count() - 1));
    m_editor->setBuild(record::BuildAt(static_cast<std::size_t>(std::max(0, m_list->currentRow()))));
    m_listText->setText(m_hand.isSealed() ? tr("Sealed: nothing here tells which tag is which.")
                        : clubs.empty()   ? tr("Add the clubs on test: A.")
                                          : tr("A adds, C copies, B makes it my club, Delete takes it out."));
    m_screening->setVisible(test.stage != record::Stage::test);
    refreshDifferences();
    refreshScreening();
    refreshStarting();
}

void RackPage::refreshDifferences() {
    const Test& test = m_hand.test();
    std::vector<Build> clubs;
    std::ranges::copy_if(clubsOf(test), std::back_inserter(clubs), [](const Build& b) { return b.struckOff.empty(); });
    if (clubs.size() < 2)
        return m_differences->setText(tr("Two clubs make a comparison."));
    const auto sheet = rack::differenceSheet(clubs, test.card.kind);
    const QString faint = colours().faint.name();
    QString html = QStringLiteral("<table cellspacing='0' cellpadding='3' width='100%'><tr><td></td>");
    for (const Build& club : clubs)
        html += QStringLiteral("<td align='right'><b>%1</b></td>").arg(columnHead(club.name, clubs.size()));
    html += QStringLiteral("<td></td></tr>");
    for (const auto& row : sheet) {
        const bool heavy = row.weight == rack::Weight::large && !row.follows;
        const QString colour = heavy ? colours().alarm.name() : row.follows ? faint : colours().ink.name();
        html += QStringLiteral("<tr style='color:%1'><td>%2</td>")
                    .arg(colour, QString::fromStdString(
                                     row.what + (row.unit.empty() || row.unit == "points" ? "" : ", " + row.unit)));
        for (const auto& value : row.values)
            html += QStringLiteral("<td align='right'>%1</td>").arg(QString::fromStdString(value).toHtmlEscaped());
        QString why = row.follows ? tr("comes with the factor") : tr("moves %1").arg(QString::fromStdString(row.moves));
        if (!row.remedy.empty() && row.weight != rack::Weight::slight)
            why += QStringLiteral("; ") + QString::fromStdString(row.remedy).toHtmlEscaped();
        html += QStringLiteral("<td>%1</td></tr>").arg(why);
    }
    html += QStringLiteral("</table>");
    if (sheet.empty())
        html = tr("<p>Nothing that is known.</p>");
    const auto unknown = rack::unknowns(clubs);
    if (!unknown.empty()) {
        QStringList words;
        for (std::size_t i = 0; i < std::min<std::size_t>(unknown.size(), 4); ++i)
            words << QString::fromStdString(unknown[i]).toHtmlEscaped();
        html += QStringLiteral("<p style='color:%1'>%2</p>")
                    .arg(faint, tr("Not known, and so perhaps different: %1%2")
                                    .arg(words.join(QStringLiteral(", ")),
                                         unknown.size() > 4 ? tr(" and %1 more.").arg(unknown.size() - 4)
                                                            : QStringLiteral(".")));
    }
    m_differences->setText(html);
}

void RackPage::refreshScreening() {
    const Test& test = m_hand.test();
    if (test.stage == record::Stage::test)
        return;
    const auto leads = judge::leads(judge::Case::of(test));
    const Metric metric = judge::leadOutcome(test.card).metric;
    const record::MetricFormat format(metric, m_book.units());
    m_leads->setText(leadsText(test, leads, m_book.units()));
    m_shot->setRemark(
        tr("%1 of %2")
            .arg(QString::fromStdString(format.unitText()), QString::fromStdString(record::info(metric).label)));
    m_confirm->setEnabled(leads.size() >= 2);
    m_confirm->setText(leads.size() > 2 ? tr("Confirm the first two") : tr("Confirm the last two"));
}

QString RackPage::subtitle() const {
    return tr("Rack · %1").arg(QString::fromStdString(record::counted(clubsOf(m_hand.test()).size(), "club")));
}

void RackPage::takeFocus() {
    m_editor->offerParts();
    m_list->setFocus();
}

} // namespace knot::app
