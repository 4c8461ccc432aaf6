#include "app/reading_page/reading_page.h"

#include "app/form/panel.h"
#include "app/picture/cords_view.h"
#include "app/picture/picture_view.h"
#include "app/reading_page/cords_of.h"
#include "app/reading_page/ledger.h"
#include "app/reading_page/one_run_view.h"
#include "app/reading_page/picture_tabs.h"
#include "app/reading_page/sheet_strip.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/judging.h"
#include "app/session/test_in_hand.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/record/number_text.h"
#include "core/words/averages.h"
#include "core/words/ledger.h"
#include "core/words/remarks.h"
#include "core/words/swing_remarks.h"

#include <QComboBox>
#include <QLabel>
#include <QListView>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <QShortcut>
#include <QStackedWidget>
#include <QVBoxLayout>

#include <algorithm>

namespace knot::app {
namespace {

QString paragraph(const std::string& text, const QColor& colour) {
    return QStringLiteral("<p style='margin:4px 0; color:%1'>%2</p>")
        .arg(colour.name(), QString::fromStdString(text).toHtmlEscaped());
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
    showUnder();
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
    m_oneRun = new OneRunView;
    m_says = new QStackedWidget;
    m_says->addWidget(m_ledger);
    m_says->addWidget(m_oneRun);
    column->addWidget(m_says, 1);
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
    m_picture = new PictureView;
    m_tabs = new PictureTabs;
    m_tabs->setCurrentIndex(static_cast<int>(PictureKind::cords));
    m_shown = new QStackedWidget;
    m_shown->addWidget(m_cords);
    m_shown->addWidget(m_picture);
    m_finding = captionLabel("finding");
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
    column->addWidget(m_tabs);
    column->addLayout(head);
    column->addWidget(m_shown, 1);
    column->addWidget(m_finding);
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
    for (std::size_t i = 0; i < pictureKinds; ++i) {
        auto* picture = new QShortcut(static_cast<Qt::Key>(Qt::Key_1 + static_cast<int>(i)), this);
        picture->setContext(Qt::WidgetWithChildrenShortcut);
        connect(picture, &QShortcut::activated, m_tabs,
                [this, i] { showPictureNamed(m_tabs->tabText(static_cast<int>(i))); });
    }
    auto* save = new QShortcut(Qt::CTRL | Qt::SHIFT | Qt::Key_E, this);
    save->setContext(Qt::WidgetWithChildrenShortcut);
    connect(save, &QShortcut::activated, this,
            [this] { emit saveRequested(m_shown->size(), [this](QPainter& painter) { paintPicture(painter); }); });
    auto* shots = new QShortcut(Qt::Key_L, this);
    shots->setContext(Qt::WidgetWithChildrenShortcut);
    connect(shots, &QShortcut::activated, this, &ReadingPage::shotsRequested);
}

void ReadingPage::wire() {
    connect(&m_hand, &TestInHand::replaced, this, [this] {
        m_metric.reset();
        m_build = {};
        m_hasChosen = false;
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
    connect(m_picture, &PictureView::litChanged, this, &ReadingPage::caption);
    connect(m_tabs, &QTabBar::tabBarClicked, this, [this] { m_hasChosen = true; });
    connect(m_tabs, &QTabBar::currentChanged, this, [this](int at) {
        m_kind = static_cast<PictureKind>(at);
        showPicture();
    });
    connect(m_keep, &QPushButton::clicked, this, &ReadingPage::keepRequested);
    connect(m_oneRun, &OneRunView::fairTestRequested, this, &ReadingPage::fairTestRequested);
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
    const auto run = reading != nullptr ? words::oneRun(*reading, m_book.units()) : std::nullopt;
    m_oneRun->setRun(run, reading, m_book.units());
    m_says->setCurrentIndex(run ? 1 : 0);
    // Of one run each the table says most, until somebody chooses.
    if (!m_hasChosen)
        m_tabs->setCurrentIndex(static_cast<int>(run ? PictureKind::table : PictureKind::cords));
    if (reading != nullptr) {
        for (const auto shown : reading->metrics)
            m_metrics->addItem(QString::fromStdString(record::info(shown).label), static_cast<int>(shown));
        returnTo(metric || !run ? metric : std::optional(run->metric), build);
    } else {
        m_cords->setPicture({});
        m_picture->setPicture(nullptr);
        m_finding->clear();
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
    const bool isOneRun = m_says->currentIndex() == 1;
    if (isOneRun) // its page has said these
        std::erase_if(checks, [](const words::Remark& check) {
            return check.code == "one_turn_each" || check.code == "bet" || check.code == "best_bet";
        });
    std::ranges::stable_sort(checks, std::greater{}, &words::Remark::severity);
    auto section = [](const QString& heading, const std::vector<words::Remark>& said) {
        QString html;
        for (const auto& one : said)
            html += paragraph(one.text, one.severity == judge::Severity::fault ? colours().alarm : colours().ink);
        return html.isEmpty() || heading.isEmpty()
                   ? html
                   : QStringLiteral("<p style='margin:6px 0 0 0'><b>%1</b></p>").arg(heading) + html;
    };
    if (isOneRun)
        return section({}, checks);
    const QString swing = section(tr("Same swing?"), words::sameSwing(*reading));
    const QString whose = section(tr("Whose doing?"), words::whoseDoing(*reading, m_metric));
    return swing + whose +
           section(swing.isEmpty() && whose.isEmpty() ? QString() : tr("What else could explain it"), checks);
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
    const QString html = m_showsArithmetic && m_says->currentIndex() == 0 ? arithmeticHtml() : checksHtml();
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
    refreshFoot();
    showPicture();
}

// A narrow window keeps its room for the picture; a screen reader hears the words all the same.
void ReadingPage::showUnder() {
    m_finding->setVisible(!m_finding->text().isEmpty() && m_sides->direction() == QBoxLayout::LeftToRight);
}

std::unique_ptr<Picture> ReadingPage::pictureOfKind(PictureKind kind) const {
    const judge::Reading* reading = m_judging.reading();
    if (reading == nullptr || !m_metric)
        return nullptr;
    const record::DisplayUnits units = m_book.units();
    const record::Structure structure = record::structureOf(m_judging.subject().seen());
    const Looked looked{m_judging.subject(), *reading, *m_metric, m_build, units, structure};
    switch (kind) {
    case PictureKind::table:
        return tablePicture(looked);
    case PictureKind::landing:
        return landingPicture(looked);
    case PictureKind::flight:
        return flightPicture(looked);
    case PictureKind::face:
        return facePicture(looked);
    case PictureKind::order:
        return orderPicture(looked);
    case PictureKind::luck:
        return luckPicture(looked);
    case PictureKind::parts:
        return partsPicture(looked);
    case PictureKind::cords:
        break;
    }
    return nullptr;
}

// The cords are drawn of every number; another picture only where the number in hand has one.
void ReadingPage::showPicture() {
    const judge::Reading* reading = m_judging.reading();
    if (reading == nullptr || !m_metric)
        return;
    const bool isCords = m_kind == PictureKind::cords;
    if (isCords)
        m_cords->setPicture(cordsOf(m_judging.subject(), *reading, *m_metric, m_book.units()));
    else
        m_picture->setPicture(pictureOfKind(m_kind));
    m_shown->setCurrentWidget(isCords ? static_cast<QWidget*>(m_cords) : m_picture);
    const Picture* picture = isCords ? nullptr : m_picture->picture();
    m_finding->setText(isCords              ? QString()
                       : picture != nullptr ? picture->under()
                                            : tr("There is no such picture of this number."));
    showUnder();
    const bool isOfAll = m_kind == PictureKind::landing || m_kind == PictureKind::flight || m_kind == PictureKind::face;
    m_metrics->setVisible(!isOfAll);
    caption(isCords ? QString() : m_picture->litText()); // a shot that is pointed at stays so
}

void ReadingPage::showPictureNamed(const QString& name) {
    for (int i = 0; i < m_tabs->count(); ++i)
        if (m_tabs->tabText(i).compare(name, Qt::CaseInsensitive) == 0) {
            m_hasChosen = true;
            m_tabs->setCurrentIndex(i);
        }
}

void ReadingPage::paintPicture(QPainter& painter) const {
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF box({0, 0}, m_shown->size());
    painter.fillRect(box, colours().sheet);
    if (m_kind == PictureKind::cords)
        paintCords(painter, m_cords->picture(), cordsLayout(m_cords->picture(), box), box, std::nullopt);
    else if (m_picture->picture() != nullptr)
        m_picture->picture()->paint(painter, std::nullopt);
}

void ReadingPage::caption(const QString& text) {
    m_caption->setText(!text.isEmpty()                ? text
                       : m_kind == PictureKind::cords ? tr("every knot is a counted shot · Enter tells how")
                                                      : tr("Ctrl+C copies · Ctrl+Shift+E saves"));
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
    m_says->currentWidget()->setFocus();
}

} // namespace knot::app
