#include "app/reading_page/reading_page.h"

#include "app/form/curtain.h"
#include "app/form/panel.h"
#include "app/reading_page/one_run_view.h"
#include "app/reading_page/picture_panel.h"
#include "app/reading_page/sheet_strip.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/judging.h"
#include "app/session/test_in_hand.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/record/text/number_text.h"
#include "core/words/answer.h"
#include "core/words/averages.h"
#include "core/words/ledger.h"
#include "core/words/remarks/remarks.h"
#include "core/words/remarks/shot_remarks.h"
#include "core/words/remarks/swing_remarks.h"
#include "core/words/tried.h"

#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QPushButton>
#include <QScrollArea>
#include <QShortcut>
#include <QStackedWidget>
#include <QVBoxLayout>

#include <algorithm>
#include <array>

namespace knot::app {
namespace {

QString paragraph(const std::string& text, const QColor& colour) {
    return QStringLiteral("<p style='margin:4px 0; color:%1'>%2</p>")
        .arg(colour.name(), QString::fromStdString(text).toHtmlEscaped());
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
    m_pictures = new PicturePanel(hand, declaring, judging, book);
    m_pictures->setMinimumWidth(380); // its chips wrap
    m_sides->addWidget(m_pictures, 8);
    m_curtain = new Curtain;
    auto* whole = new QVBoxLayout(this);
    whole->setContentsMargins(0, 0, 0, 0);
    m_bodyArea = scrolling(m_body);
    whole->addWidget(m_bodyArea);
    whole->addWidget(m_curtain);
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
    m_pictures->setNarrow(narrow);
    constexpr int tall = 420; // each of the two, where they stand under each other
    m_body->setMinimumHeight(narrow ? static_cast<int>(2 * tall * typeScale()) : 0);
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
    m_answer = new WholeLabel;
    richLabel(m_answer);
    m_answer->setObjectName(QStringLiteral("answer"));
    m_answer->setFont(typeface(size::strong));
    auto* answer = new QHBoxLayout;
    answer->setContentsMargins(14, 4, 14, 6);
    answer->addWidget(m_answer);
    column->addLayout(answer);
    m_filter = new QLineEdit;
    m_filter->setObjectName(QStringLiteral("ledgerFilter"));
    m_filter->setPlaceholderText(tr("a club, a number, a verdict · Esc shows all"));
    m_filter->setAccessibleName(tr("Lines that hold"));
    m_filter->hide();
    auto* filterRow = new QHBoxLayout;
    filterRow->setContentsMargins(14, 0, 14, 0);
    filterRow->addWidget(m_filter);
    column->addLayout(filterRow);
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

void ReadingPage::buildKeys() {
    auto key = [&](const QKeySequence& which, auto action) {
        auto* shortcut = new QShortcut(which, this);
        shortcut->setContext(Qt::WidgetWithChildrenShortcut);
        connect(shortcut, &QShortcut::activated, this, action);
    };
    key(Qt::Key_B, [this] { m_pictures->strip()->nextBaseline(); });
    key(Qt::Key_P, [this] { m_pictures->strip()->toggleDeclared(); });
    key(Qt::Key_G, [this] { m_pictures->strip()->editGap(); });
    key(Qt::Key_L, [this] { emit shotsRequested(); });
    key(Qt::Key_O, [this] { nextOrder(); });
    key(Qt::Key_U, [this] { m_model->unfold(); });
    key(Qt::Key_Slash, [this] { showFilter(true); });
    m_pictures->bindKeys(this);
}

void ReadingPage::showFilter(bool shown) {
    m_filter->setVisible(shown);
    if (shown)
        return m_filter->setFocus();
    m_filter->clear();
    m_ledger->setFocus();
}

void ReadingPage::nextOrder() {
    constexpr std::array next = {LedgerOrder::byNumber, LedgerOrder::byClub, LedgerOrder::bySettled};
    m_order = next.at(static_cast<std::size_t>(m_order));
    m_model->setOrder(m_order);
    m_against->setText(againstText());
    returnTo(m_metric, m_build);
}

void ReadingPage::wire() {
    connect(&m_hand, &TestInHand::replaced, this, [this] {
        m_metric.reset();
        m_build = {};
        m_pictures->forgetChoice();
        m_filter->hide();
        m_filter->clear();
        m_showsArithmetic = false;
        if (m_hand.has() && !m_hand.test().card.primary.empty())
            m_metric = m_hand.test().card.primary.front().metric;
        m_outcome = m_hand.has() && !m_hand.test().card.primary.empty() ? m_hand.test().card.primary.front().kind
                                                                        : record::OutcomeKind::average;
        markStale();
    });
    connect(&m_judging, &Judging::changed, this, &ReadingPage::markStale);
    connect(m_curtain, &Curtain::lookRequested, &m_declaring, &Declaring::look);
    connect(&m_book, &Book::unitsChanged, this, &ReadingPage::markStale);
    connect(m_ledger->selectionModel(), &QItemSelectionModel::currentChanged, this, [this](const QModelIndex& index) {
        if (m_isReturning || !index.isValid() || !m_model->at(index.row()).heading.isEmpty())
            return;
        m_build = m_model->at(index.row()).line.build;
        m_outcome = m_model->at(index.row()).line.outcome.kind;
        showMetric(m_model->at(index.row()).metric);
    });
    connect(m_ledger, &QListView::activated, this, [this] {
        m_showsArithmetic = !m_showsArithmetic;
        refreshFoot();
    });
    connect(m_filter, &QLineEdit::textChanged, this, [this](const QString& typed) {
        m_model->setFilter(typed);
        if (const int first = m_model->firstLine(); first >= 0)
            m_ledger->setCurrentIndex(m_model->index(first));
    });
    connect(m_filter, &QLineEdit::returnPressed, m_ledger, qOverload<>(&QListView::setFocus));
    m_filter->installEventFilter(this);
    connect(m_pictures, &PicturePanel::metricChosen, this, [this](record::Metric metric) {
        const int at = m_model->rowOf(metric, m_build);
        m_outcome = record::OutcomeKind::average;
        if (at >= 0)
            m_ledger->setCurrentIndex(m_model->index(at));
        showMetric(metric);
    });
    connect(m_pictures, &PicturePanel::lifted, &m_judging, &Judging::judgeWithout);
    connect(&m_judging, &Judging::withoutChanged, this,
            [this] { m_model->setWithout(m_judging.without(), m_book.units()); });
    connect(m_pictures, &PicturePanel::keepRequested, this, &ReadingPage::keepRequested);
    connect(m_pictures, &PicturePanel::saveRequested, this, &ReadingPage::saveRequested);
    connect(m_pictures, &PicturePanel::copyRequested, this, &ReadingPage::copyRequested);
    connect(m_oneRun, &OneRunView::fairTestRequested, this, &ReadingPage::fairTestRequested);
}

bool ReadingPage::eventFilter(QObject* watched, QEvent* event) {
    if (watched == m_filter && event->type() == QEvent::ShortcutOverride &&
        static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape) {
        event->accept(); // it ends the filter, not what is behind it
        return true;
    }
    if (watched == m_filter && event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Escape)
            return showFilter(false), true;
        if (key == Qt::Key_Down)
            return m_ledger->setFocus(), true;
    }
    return Page::eventFilter(watched, event);
}

QString ReadingPage::againstText() const {
    const judge::Reading* reading = m_judging.reading();
    if (reading == nullptr || reading->builds.size() < 2)
        return {};
    const QString order = m_order == LedgerOrder::byNumber ? tr(" · by number")
                          : m_order == LedgerOrder::byClub ? tr(" · by club")
                                                           : QString();
    if (reading->card.comparison == record::Comparison::whichOfThese)
        return tr("every pair") + order;
    const QString name = QString::fromStdString(reading->builds[reading->baseline].name);
    return tr("against %1").arg(name.size() > 24 ? name.left(23) + QStringLiteral("…") : name) + order;
}

void ReadingPage::refresh() {
    const judge::Reading* reading = m_judging.reading();
    m_pictures->setKeepable(m_hand.has() && !m_hand.isKept());
    m_curtain->display(m_judging.withheld());
    m_bodyArea->setVisible(!m_judging.withheld());
    // While the judge is at work the last answer stays, unless the test itself has changed.
    if (reading == nullptr && !m_judging.withheld() && m_hand.has() && m_model->rowCount() > 0 &&
        m_against->text().isEmpty())
        return;
    const auto metric = m_metric;
    const auto build = m_build;
    std::vector<record::BuildAt> struckOff;
    for (record::BuildAt b; reading != nullptr && b < m_judging.subject().seen().builds.size(); ++b)
        if (m_judging.subject().roster().isStruckOff(m_judging.subject().clubOf(b)))
            struckOff.push_back(b);
    m_model->setReading(reading, struckOff, m_book.units());
    m_against->setText(againstText());
    auto run = reading != nullptr ? words::oneRun(*reading, m_book.units()) : std::nullopt;
    if (run && !m_hand.isSealed())
        for (const words::Tried& one : words::tried(m_hand.test(), m_book.units()))
            if (!one.left.empty())
                run->swing.push_back(one.name + " went: " + one.left + ".");
    m_oneRun->setRun(run, reading, m_book.units());
    m_says->setCurrentIndex(run ? 1 : 0);
    QString answer;
    if (reading != nullptr && !run) // one run each begins with its bets
        for (const words::Answer& one : words::answersOf(*reading, m_book.units()))
            answer += paragraph(one.text, one.isAsked ? colours().ink : colours().faint);
    m_answer->setText(answer);
    m_answer->setVisible(!answer.isEmpty());
    m_pictures->takeReading();
    // Of one run each the table says most, until somebody chooses.
    const bool alone = reading != nullptr && reading->builds.size() < 2; // one club has averages and no gaps
    const bool isBag = reading != nullptr && isThere(PictureKind::bag, m_judging.subject().seen(), *reading);
    m_pictures->propose(isBag ? PictureKind::bag : run || alone ? PictureKind::table : PictureKind::cords);
    if (reading != nullptr)
        returnTo(metric || !run ? metric : std::optional(run->metric), build);
    else
        refreshFoot();
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
    int row = metric ? m_model->rowOf(*metric, build, m_outcome) : m_model->firstLine();
    for (const auto kind : {m_outcome, record::OutcomeKind::average})
        for (record::BuildAt b; metric && row < 0 && b < m_judging.reading()->builds.size(); ++b)
            row = m_model->rowOf(*metric, b, kind);
    if (row >= 0) {
        m_isReturning = true; // what is shown follows below, once
        m_ledger->setCurrentIndex(m_model->index(row));
        m_isReturning = false;
        m_build = m_model->at(row).line.build;
        m_outcome = m_model->at(row).line.outcome.kind;
    }
    const auto& read = m_judging.reading()->metrics;
    const auto isRead = [&](record::Metric one) { return std::ranges::find(read, one) != read.end(); };
    if (metric && isRead(*metric))
        showMetric(*metric);
    else if (row >= 0)
        showMetric(m_model->at(row).metric);
    else if (!read.empty())
        showMetric(isRead(record::Metric::carry) ? record::Metric::carry : read.front());
    else
        refreshFoot();
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
    std::vector<words::Remark> shots;
    std::ranges::copy_if(words::shotRemarks(*reading, m_book.units()), std::back_inserter(shots),
                         [](const words::Remark& remark) { return remark.severity == judge::Severity::note; });
    const QString fromShots = section(tr("From the shots"), shots);
    if (isOneRun)
        return section({}, checks) + fromShots;
    const QString swing = section(tr("Same swing?"), words::sameSwing(*reading, m_book.units()));
    const QString whose = section(tr("Whose doing?"), words::whoseDoing(*reading, m_metric));
    return swing + whose +
           section(swing.isEmpty() && whose.isEmpty() ? QString() : tr("What else could explain it"), checks) +
           fromShots;
}

QString ReadingPage::arithmeticHtml() const {
    const QModelIndex index = m_ledger->currentIndex();
    const judge::Reading* reading = m_judging.reading();
    if (reading == nullptr || !index.isValid() || !m_model->at(index.row()).heading.isEmpty())
        return {};
    const words::LedgerLine& line = m_model->at(index.row()).line;
    QString html = paragraph(line.sentence, colours().ink) + QStringLiteral("<table cellspacing='0' cellpadding='2'>");
    for (const auto& step : words::arithmetic(*reading, line, m_book.units()))
        html += QStringLiteral("<tr><td style='color:%1'>%2&nbsp;&nbsp;</td><td style='color:%3' align='right'>%4</td>"
                               "<td style='color:%1'>&nbsp;&nbsp;%5</td></tr>")
                    .arg(colours().faint.name(), QString::fromStdString(step.what).toHtmlEscaped(),
                         colours().ink.name(), QString::fromStdString(step.value).toHtmlEscaped(),
                         QString::fromStdString(step.how).toHtmlEscaped());
    return html + QStringLiteral("</table>");
}

void ReadingPage::refreshFoot() {
    const QString html = m_showsArithmetic && m_says->currentIndex() == 0 ? arithmeticHtml() : checksHtml();
    m_checkArea->setAccessibleName(m_showsArithmetic ? tr("How it was reckoned") : tr("What to keep in mind"));
    if (html != m_checks->text()) // laying it out is dear
        m_checks->setText(html);
    m_checkArea->setVisible(!html.isEmpty());
    m_checkLine->setVisible(!html.isEmpty());
    // As high as the text needs, up to a third of the page; beyond that it scrolls.
    const int height = m_checks->heightForWidth(std::max(200, m_ledger->viewport()->width() - 30));
    m_checkArea->setFixedHeight(std::min(height + 4, std::max(90, this->height() / 3)));
}

void ReadingPage::showMetric(record::Metric metric) {
    m_metric = metric;
    refreshFoot();
    m_pictures->show(metric, m_build, m_outcome);
}

void ReadingPage::showPictureNamed(const QString& name) {
    m_pictures->showPictureNamed(name);
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
    QStringList parts{QString::fromStdString(record::counted(counted, "shot"))};
    if (reading->singleRuns.empty()) // clubs hit as it came make no laps
        parts << QString::fromStdString(record::counted(reading->rounds, "lap"));
    if (setAside > 0)
        parts << tr("%1 set aside").arg(setAside);
    if (warmUp > 0)
        parts << tr("%1 to warm up").arg(warmUp);
    if (!m_hand.test().players.empty())
        parts << QString::fromStdString(m_hand.test().playerNames());
    if (!m_hand.isKept())
        parts << tr("not saved yet");
    return parts.join(QStringLiteral(" · "));
}

void ReadingPage::takeFocus() {
    m_says->currentWidget()->setFocus();
}

} // namespace knot::app
