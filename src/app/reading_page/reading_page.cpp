#include "app/reading_page/reading_page.h"

#include "app/form/panel.h"
#include "app/picture/cords_view.h"
#include "app/reading_page/ledger.h"
#include "app/reading_page/sheet_strip.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/judging.h"
#include "app/session/test_in_hand.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/judge/columns.h"
#include "core/record/number_text.h"
#include "core/words/ledger.h"
#include "core/words/remarks.h"

#include <QComboBox>
#include <QLabel>
#include <QListView>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <QShortcut>
#include <QVBoxLayout>

#include <algorithm>

namespace knot::app {
namespace {

QString paragraph(const std::string& text, const QColor& colour) {
    return QStringLiteral("<p style='margin:4px 0; color:%1'>%2</p>")
        .arg(colour.name(), QString::fromStdString(text).toHtmlEscaped());
}

QString knotText(const judge::Case& subject, const record::Structure& structure, std::size_t shot,
                 const std::string& value) {
    const record::Test& test = subject.seen();
    const auto& s = test.shots[shot];
    const auto& turn = structure.turns[structure.turnOfShot[shot]];
    const std::string number = s.number.empty() ? std::to_string(subject.numberOfSeen(record::ShotAt(shot))) : s.number;
    QString text = ReadingPage::tr("%1, shot %2")
                       .arg(QString::fromStdString(test.builds[s.build].name), QString::fromStdString(number));
    if (turn.round)
        text += ReadingPage::tr(", lap %1").arg(QString::fromStdString(structure.rounds[*turn.round]));
    return text + QStringLiteral(": ") + QString::fromStdString(value);
}

// Joins what the record holds with what the reading found, for one metric.
CordsPicture pictureOf(const judge::Case& subject, const judge::Reading& reading, record::Metric metric,
                       const record::DisplayUnits& units) {
    const record::Test& test = subject.seen();
    const record::MetricFormat format(metric, units);
    const auto structure = record::structureOf(test);
    const auto column = judge::columnOf(test, structure, metric, judge::Taken::counted);
    CordsPicture picture;
    picture.unit = QString::fromStdString(format.unitText());
    picture.knotTexts.resize(static_cast<qsizetype>(test.shots.size()));
    for (record::BuildAt b; b < test.builds.size(); ++b) {
        const auto* summary = reading.summaryOf(metric, b);
        if (summary == nullptr)
            continue;
        if (b == reading.baseline && !test.seal.isClosed())
            picture.data.baseline = picture.data.cords.size();
        picture::CordData cord;
        for (const auto& turn : column.builds[b].turns)
            for (std::size_t i = 0; i < turn.values.size(); ++i) {
                cord.values.push_back(format.shown(turn.values[i]));
                cord.shots.push_back(turn.shots[i]);
                picture.knotTexts[static_cast<qsizetype>(turn.shots[i])] =
                    knotText(subject, structure, turn.shots[i], format.withUnit(turn.values[i]));
            }
        cord.mean = format.shown(summary->mean);
        if (summary->ci95) {
            cord.low = format.shown(summary->ci95->low);
            cord.high = format.shown(summary->ci95->high);
        }
        picture.data.cords.push_back(std::move(cord));
        picture.builds.push_back(b);
        picture.names << QString::fromStdString(test.builds[b].name);
        picture.notes << (b == reading.baseline && !test.seal.isClosed() ? ReadingPage::tr("baseline") : QString());
        picture.means << QString::fromStdString(
            format.supportedBy(summary->standardError.value_or(0)).number(summary->mean));
    }
    const bool hasBaseline = !test.seal.isClosed() && reading.summaryOf(metric, reading.baseline) != nullptr;
    picture.data.margin = hasBaseline ? format.shown(reading.card.margin(metric)) : 0;
    return picture;
}

QString againstText(const judge::Reading* reading) {
    if (reading == nullptr || reading->builds.size() < 2)
        return {};
    if (reading->card.comparison == record::Comparison::whichOfThese)
        return ReadingPage::tr("every pair");
    const QString name = QString::fromStdString(reading->card.baseline);
    return ReadingPage::tr("against %1").arg(name.size() > 24 ? name.left(23) + QStringLiteral("…") : name);
}

constexpr double narrowest = 860; // for ledger and picture side by side

} // namespace

ReadingPage::ReadingPage(const TestInHand& hand, Declaring& declaring, Judging& judging, Book& book, QWidget* parent)
    : Page(parent)
    , m_hand(hand)
    , m_declaring(declaring)
    , m_judging(judging)
    , m_book(book) {
    m_body = new QWidget;
    m_sides = new QBoxLayout(QBoxLayout::LeftToRight, m_body);
    m_sides->setContentsMargins(0, 0, 0, 0);
    m_sides->setSpacing(2 * size::grid);
    m_sides->addWidget(buildLedger(), 5);
    m_sides->addWidget(buildPicture(), 8);
    m_curtain = buildCurtain();
    auto* whole = new QVBoxLayout(this);
    whole->setContentsMargins(0, 0, 0, 0);
    whole->addWidget(m_body);
    whole->addWidget(m_curtain);
    m_curtain->hide();
    buildKeys();
    wire();
}

// In a narrow window the picture stands under what is said of it.
void ReadingPage::resizeEvent(QResizeEvent* event) {
    Page::resizeEvent(event);
    const bool narrow = width() < typeScale() * narrowest;
    m_sides->setDirection(narrow ? QBoxLayout::TopToBottom : QBoxLayout::LeftToRight);
    m_sides->setStretch(0, narrow ? 1 : 5);
    m_sides->setStretch(1, narrow ? 1 : 8);
    m_caption->setVisible(!narrow);
}

QWidget* ReadingPage::buildLedger() {
    auto* sheet = new Panel;
    sheet->setMinimumWidth(380);
    m_model = new LedgerModel(this);
    m_ledger = new QListView;
    m_ledger->setObjectName(QStringLiteral("ledger"));
    m_ledger->setAccessibleName(tr("Verdicts"));
    m_ledger->setModel(m_model);
    m_ledger->setItemDelegate(new LedgerDelegate(m_ledger));
    m_ledger->setFrameShape(QFrame::NoFrame);
    m_ledger->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    m_ledger->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_ledger->setResizeMode(QListView::Adjust);
    m_against = captionLabel("against");
    m_against->setWordWrap(false);
    m_checks = captionLabel("checks");
    m_checks->setTextFormat(Qt::RichText);
    auto* head = new QHBoxLayout;
    head->setContentsMargins(14, 0, 14, 0);
    head->addWidget(headingLabel(tr("What the shots say")));
    head->addStretch();
    head->addWidget(m_against);
    auto* column = new QVBoxLayout(sheet);
    column->setContentsMargins(1, 14, 1, 12);
    column->addLayout(head);
    column->addWidget(m_ledger, 1);
    m_checks->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    m_checkArea = scrolling(m_checks);
    m_checkArea->setObjectName(QStringLiteral("checkArea"));
    m_checkArea->setAccessibleName(tr("What to keep in mind"));
    m_checkLine = new QFrame;
    m_checkLine->setFixedHeight(1);
    m_checkLine->setAutoFillBackground(true);
    m_checkLine->setBackgroundRole(QPalette::Mid);
    column->addWidget(m_checkLine);
    auto* foot = new QVBoxLayout;
    foot->setContentsMargins(14, 4, 6, 0);
    foot->addWidget(m_checkArea);
    column->addLayout(foot);
    return sheet;
}

QWidget* ReadingPage::buildPicture() {
    auto* sheet = new Panel;
    m_metrics = new QComboBox;
    m_metrics->setObjectName(QStringLiteral("metric"));
    m_metrics->setAccessibleName(tr("Number shown"));
    m_metrics->setMinimumWidth(170);
    m_metrics->setMaxVisibleItems(24);
    m_caption = captionLabel("caption");
    m_caption->setWordWrap(false);
    m_keep = new QPushButton(tr("Keep in a logbook…"));
    m_keep->setObjectName(QStringLiteral("keepButton"));
    m_cords = new CordsView;
    m_strip = new SheetStrip(m_hand, m_declaring, m_judging, m_book);
    auto* head = new QHBoxLayout;
    head->addWidget(m_metrics);
    head->addStretch();
    head->addWidget(m_caption);
    head->addSpacing(8);
    head->addWidget(m_keep);
    auto* column = new QVBoxLayout(sheet);
    column->setContentsMargins(18, 12, 18, 14);
    column->setSpacing(size::grid);
    column->addLayout(head);
    column->addWidget(m_cords, 1);
    column->addWidget(m_strip);
    return sheet;
}

QWidget* ReadingPage::buildCurtain() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel({}, column);
    m_curtainText = plainLabel();
    m_curtainText->setObjectName(QStringLiteral("curtain"));
    m_curtainText->setAlignment(Qt::AlignCenter);
    m_curtainText->setWordWrap(true);
    auto* look = new QPushButton(tr("Look now, and have it noted"));
    look->setObjectName(QStringLiteral("lookNow"));
    column->addStretch(2);
    column->addWidget(m_curtainText);
    column->addSpacing(size::grid);
    column->addWidget(look, 0, Qt::AlignCenter);
    column->addStretch(3);
    connect(look, &QPushButton::clicked, this, [this] {
        m_declaring.change(tr("who sees comparisons before the plan is done"),
                           [](record::Test& test) { test.card.visibility.comparisons = record::Sees::everyone; });
    });
    return panel;
}

// A planned test without looks whose laps are not done, and of which nobody is to see comparisons.
bool ReadingPage::isCurtained() const {
    const judge::Reading* reading = m_judging.reading();
    return reading != nullptr && m_hand.isFrozen() && reading->card.looks == record::Looks::none &&
           reading->card.visibility.comparisons == record::Sees::nobody &&
           reading->roundsDone < static_cast<std::size_t>(reading->card.plannedRounds);
}

void ReadingPage::buildKeys() {
    auto key = [&](Qt::Key which, auto action) {
        auto* shortcut = new QShortcut(which, this);
        shortcut->setContext(Qt::WidgetWithChildrenShortcut);
        connect(shortcut, &QShortcut::activated, m_strip, action);
    };
    key(Qt::Key_B, &SheetStrip::nextBaseline);
    key(Qt::Key_P, &SheetStrip::toggleDeclared);
    key(Qt::Key_G, &SheetStrip::editGap);
    auto* shots = new QShortcut(Qt::Key_L, this);
    shots->setContext(Qt::WidgetWithChildrenShortcut);
    connect(shots, &QShortcut::activated, this, &ReadingPage::shotsRequested);
}

void ReadingPage::wire() {
    connect(&m_hand, &TestInHand::replaced, this, [this] {
        m_metric.reset();
        m_build = {};
        m_showsArithmetic = false;
        if (m_hand.has() && !m_hand.test().card.primary.empty())
            m_metric = m_hand.test().card.primary.front().metric;
        markStale();
    });
    connect(&m_judging, &Judging::changed, this, &ReadingPage::markStale);
    connect(&m_book, &Book::unitsChanged, this, &ReadingPage::markStale);
    connect(m_ledger->selectionModel(), &QItemSelectionModel::currentChanged, this, [this](const QModelIndex& index) {
        if (!index.isValid() || !m_model->at(index.row()).heading.isEmpty())
            return;
        m_build = m_model->at(index.row()).line.build;
        showMetric(m_model->at(index.row()).metric);
        if (m_showsArithmetic)
            refreshFoot();
    });
    connect(m_ledger, &QListView::activated, this, [this] {
        m_showsArithmetic = !m_showsArithmetic;
        refreshFoot();
    });
    connect(m_metrics, &QComboBox::activated, this, [this](int row) {
        const auto metric = static_cast<record::Metric>(m_metrics->itemData(row).toInt());
        const int at = m_model->rowOf(metric, m_build);
        if (at >= 0)
            m_ledger->setCurrentIndex(m_model->index(at));
        showMetric(metric);
    });
    connect(m_cords, &CordsView::litChanged, this, &ReadingPage::caption);
    connect(m_keep, &QPushButton::clicked, this, &ReadingPage::keepRequested);
}

void ReadingPage::refresh() {
    const judge::Reading* reading = m_judging.reading();
    m_keep->setVisible(m_hand.has() && !m_hand.isKept());
    const bool curtained = isCurtained();
    m_curtain->setVisible(curtained);
    m_body->setVisible(!curtained);
    if (curtained)
        m_curtainText->setText(tr("Laps done: %1 of %2. The sheet says that nobody sees a comparison before the last: "
                                  "a look now would break the error rates.")
                                   .arg(reading->roundsDone)
                                   .arg(reading->card.plannedRounds));
    // While the judge is at work the last answer stays, unless the test itself has changed.
    if (reading == nullptr && m_hand.has() && m_model->rowCount() > 0 && m_against->text().isEmpty())
        return;
    const auto metric = m_metric;
    const auto build = m_build;
    m_model->setReading(reading, m_book.units());
    m_metrics->clear();
    m_against->setText(againstText(reading));
    if (reading != nullptr) {
        for (const auto shown : reading->metrics)
            m_metrics->addItem(QString::fromStdString(record::info(shown).label), static_cast<int>(shown));
        returnTo(metric, build);
    } else {
        m_cords->setPicture({});
    }
    refreshFoot();
    caption({});
}

// What is looked at is judged anew when shots come.
void ReadingPage::showEvent(QShowEvent* event) {
    m_judging.setWatched(true);
    Page::showEvent(event);
}

void ReadingPage::hideEvent(QHideEvent* event) {
    m_judging.setWatched(false);
    Page::hideEvent(event);
}

// The row that was in hand before, else the first one about its metric, else the first of all.
void ReadingPage::returnTo(std::optional<record::Metric> metric, record::BuildAt build) {
    int row = metric ? m_model->rowOf(*metric, build) : m_model->firstLine();
    for (record::BuildAt b; metric && row < 0 && b < m_judging.reading()->builds.size(); ++b)
        row = m_model->rowOf(*metric, b);
    if (row >= 0)
        m_ledger->setCurrentIndex(m_model->index(row));
    const auto& read = m_judging.reading()->metrics;
    const bool there = metric && std::ranges::find(read, *metric) != read.end();
    if (there)
        showMetric(*metric);
    else if (row < 0 && !read.empty())
        showMetric(read.front());
    else if (read.empty())
        m_cords->setPicture({});
}

QString ReadingPage::checksHtml() const {
    const judge::Reading* reading = m_judging.reading();
    if (reading == nullptr)
        return m_judging.trouble().isEmpty() ? QString()
                                             : paragraph(m_judging.trouble().toStdString(), colours().alarm);
    auto checks = words::checks(*reading);
    for (auto& remark : words::remarks(*reading, m_book.units()))
        checks.push_back(std::move(remark));
    std::ranges::stable_sort(checks, std::greater{}, &words::Remark::severity);
    QString html;
    for (const auto& check : checks)
        html += paragraph(check.text, check.severity == judge::Severity::fault ? colours().alarm : colours().ink);
    return html;
}

QString ReadingPage::arithmeticHtml() const {
    const QModelIndex index = m_ledger->currentIndex();
    const judge::Reading* reading = m_judging.reading();
    if (reading == nullptr || !index.isValid() || !m_model->at(index.row()).heading.isEmpty())
        return {};
    const words::LedgerLine& line = m_model->at(index.row()).line;
    QString html = paragraph(line.sentence, colours().ink);
    for (const auto& text : words::arithmetic(*reading, line, m_book.units()))
        html += paragraph(text, colours().faint);
    return html;
}

void ReadingPage::refreshFoot() {
    const QString html = m_showsArithmetic ? arithmeticHtml() : checksHtml();
    m_checkArea->setAccessibleName(m_showsArithmetic ? tr("How it was reckoned") : tr("What to keep in mind"));
    m_checks->setText(html);
    m_checkArea->setVisible(!html.isEmpty());
    m_checkLine->setVisible(!html.isEmpty());
    // As high as the text needs, up to a third of the page; beyond that it scrolls.
    const int height = m_checks->heightForWidth(std::max(200, m_ledger->viewport()->width() - 30));
    m_checkArea->setFixedHeight(std::min(height + 4, std::max(90, this->height() / 3)));
}

void ReadingPage::showMetric(record::Metric metric) {
    m_metric = metric;
    m_metrics->setCurrentIndex(m_metrics->findData(static_cast<int>(metric)));
    m_strip->setMetric(metric);
    showPicture();
}

void ReadingPage::showPicture() {
    if (const judge::Reading* reading = m_judging.reading(); reading != nullptr && m_metric)
        m_cords->setPicture(pictureOf(m_judging.subject(), *reading, *m_metric, m_book.units()));
}

void ReadingPage::caption(const QString& text) {
    m_caption->setText(text.isEmpty() ? tr("every knot is a counted shot · Enter tells how") : text);
}

QString ReadingPage::subtitle() const {
    const judge::Reading* reading = m_judging.reading();
    if (reading == nullptr)
        return m_judging.trouble().isEmpty() ? tr("judging…") : tr("not judged");
    std::size_t counted = 0;
    std::size_t setAside = 0;
    std::size_t warmUp = 0;
    for (const auto& build : reading->builds) {
        counted += build.counted;
        setAside += build.setAside;
        warmUp += build.warmUp;
    }
    QStringList parts{QString::fromStdString(record::counted(counted, "knot")),
                      QString::fromStdString(record::counted(reading->rounds, "lap"))};
    if (setAside > 0)
        parts << tr("%1 set aside").arg(setAside);
    if (warmUp > 0)
        parts << tr("%1 to warm up").arg(warmUp);
    if (!m_hand.test().players.empty())
        parts << QString::fromStdString(m_hand.test().playerNames());
    if (!m_hand.isKept())
        parts << tr("not kept yet");
    return parts.join(QStringLiteral(" · "));
}

void ReadingPage::takeFocus() {
    m_ledger->setFocus();
}

} // namespace knot::app
