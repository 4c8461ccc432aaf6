#include "app/reading_page/picture_panel.h"

#include "app/picture/picture_view.h"
#include "app/reading_page/picture_tabs.h"
#include "app/reading_page/sheet_strip.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/judging.h"
#include "app/session/own_chart.h"
#include "app/session/test_in_hand.h"
#include "app/style/fonts.h"
#include "app/style/palette.h"
#include "core/ask/outcomes.h"

#include <QCheckBox>
#include <QComboBox>
#include <QMenu>
#include <QPainter>
#include <QPushButton>
#include <QSettings>
#include <QShortcut>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <QWidgetAction>

#include <algorithm>
#include <array>

namespace knot::app {
namespace {

constexpr const char* columnsKey = "tableColumns";
constexpr double besideFrom = 1000; // for two pictures beside each other; else one under the other

} // namespace

PicturePanel::PicturePanel(const TestInHand& hand, Declaring& declaring, Judging& judging, Book& book)
    : m_hand(hand)
    , m_declaring(declaring)
    , m_judging(judging)
    , m_book(book) {
    m_metrics = choiceBox({});
    m_metrics->setObjectName(QStringLiteral("metric"));
    m_metrics->setAccessibleName(tr("Number shown"));
    m_metrics->setMinimumWidth(170);
    m_metrics->setMaxVisibleItems(24);
    m_whose = choiceBox({});
    m_whose->setObjectName(QStringLiteral("whose"));
    m_whose->setAccessibleName(tr("Whose shots"));
    m_whose->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    m_caption = captionLabel("caption");
    m_caption->setWordWrap(false);
    m_keep = new QPushButton(tr("Save to a logbook…"));
    m_keep->setObjectName(QStringLiteral("keepButton"));
    m_picture = new PictureView;
    m_second = new PictureView;
    m_second->setObjectName(QStringLiteral("secondPicture"));
    m_second->hide();
    m_tabs = new PictureTabs;
    m_tabs->setCurrentIndex(static_cast<int>(PictureKind::cords));
    m_tabs->showOnly([](int i) { return i <= static_cast<int>(PictureKind::cords); }); // until there is a reading
    m_finding = captionLabel("finding");
    m_strip = new SheetStrip(hand, declaring, judging, book);
    auto* head = new QHBoxLayout;
    head->addWidget(m_metrics);
    head->addWidget(m_whose);
    head->addStretch();
    head->addWidget(m_caption);
    head->addSpacing(8);
    head->addWidget(m_keep);
    m_pair = new QBoxLayout(QBoxLayout::TopToBottom);
    m_pair->setSpacing(2 * size::grid);
    m_pair->addWidget(m_picture, 1);
    m_pair->addWidget(m_second, 1);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(18, 12, 18, 14);
    column->setSpacing(size::grid);
    column->addWidget(m_tabs);
    column->addLayout(head);
    column->addLayout(m_pair, 1);
    column->addWidget(m_finding);
    column->addWidget(m_strip);
    for (const QString& key : QSettings().value(columnsKey).toStringList())
        if (const auto metric = record::metricFromKey(key.toStdString()))
            m_columns.push_back(*metric);
    wire();
}

void PicturePanel::wire() {
    connect(m_metrics, &QComboBox::activated, this,
            [this](int row) { emit metricChosen(static_cast<record::Metric>(m_metrics->itemData(row).toInt())); });
    connect(m_whose, &QComboBox::activated, this, [this] { showPictures(); });
    for (PictureView* view : {m_picture, m_second}) {
        PictureView* other = view == m_picture ? m_second : m_picture;
        connect(view, &PictureView::litChanged, this, [this, view, other](const QString& text) {
            other->light(view->lit());
            caption(text);
        });
        connect(view, &PictureView::lifted, this, &PicturePanel::lifted);
        connect(view, &PictureView::dragged, this, &PicturePanel::moveShape);
    }
    connect(m_tabs, &QTabBar::tabBarClicked, this, [this] { m_hasChosen = true; });
    connect(m_tabs, &QTabBar::currentChanged, this, [this](int at) {
        m_kind = static_cast<PictureKind>(at);
        showPictures();
    });
    connect(m_keep, &QPushButton::clicked, this, &PicturePanel::keepRequested);
}

void PicturePanel::bindKeys(QWidget* page) {
    auto key = [&](const QKeySequence& which, auto action) {
        auto* shortcut = new QShortcut(which, page);
        shortcut->setContext(Qt::WidgetWithChildrenShortcut);
        connect(shortcut, &QShortcut::activated, this, action);
    };
    for (int i = 0; i < m_tabs->count(); ++i)
        key(PictureTabs::keyOf(i), [this, i] {
            if (m_tabs->isTabVisible(i))
                showPictureNamed(m_tabs->tabText(i));
        });
    key(Qt::Key_V, [this] { toggleBeside(); });
    key(Qt::Key_W, [this] {
        constexpr double breeze = 5;
        m_wind = m_kind != PictureKind::flight ? 0 : m_wind == 0 ? -breeze : m_wind < 0 ? breeze : 0;
        showPictures();
    });
    key(Qt::Key_C, [this] {
        if (m_kind == PictureKind::table)
            chooseColumns();
    });
    key(Qt::CTRL | Qt::SHIFT | Qt::Key_E,
        [this] { emit saveRequested(m_picture->size(), [this](QPainter& painter) { paintShown(painter); }); });
    key(Qt::CTRL | Qt::SHIFT | Qt::Key_C,
        [this] { emit copyRequested(m_picture->size(), [this](QPainter& painter) { paintShown(painter); }); });
}

void PicturePanel::takeReading() {
    const judge::Reading* reading = m_judging.reading();
    m_metrics->clear();
    if (reading == nullptr) {
        m_picture->setPicture(nullptr);
        m_second->setPicture(nullptr);
        m_finding->clear();
        return;
    }
    m_structure = record::structureOf(m_judging.subject().seen());
    for (const auto shown : reading->metrics)
        m_metrics->addItem(QString::fromStdString(record::info(shown).label), static_cast<int>(shown));
    const int before = m_whose->currentIndex();
    m_whose->clear();
    for (const judge::OfSetting& setting : reading->bySetting)
        m_whose->addItem(QString::fromStdString(setting.name));
    if (m_whose->count() > 0)
        m_whose->addItem(tr("all together"));
    m_whose->setCurrentIndex(std::clamp(before, 0, std::max(m_whose->count() - 1, 0)));
    m_whose->setVisible(m_whose->count() > 0);
    m_tabs->showOnly([&](int i) { return isThere(static_cast<PictureKind>(i), m_judging.subject().seen(), *reading); });
    caption({});
}

void PicturePanel::show(record::Metric metric, record::BuildAt build, record::OutcomeKind kind) {
    m_metric = metric;
    m_build = build;
    m_outcome = kind;
    m_metrics->setCurrentIndex(m_metrics->findData(static_cast<int>(metric)));
    m_strip->setMetric(metric);
    showPictures();
}

std::unique_ptr<Picture> PicturePanel::pictureOf(const Beside& what) const {
    const judge::Reading* reading = m_judging.reading();
    if (reading == nullptr)
        return nullptr;
    const record::DisplayUnits units = m_book.units();
    const auto chart = what.kind == PictureKind::window ? ownChart(m_book) : std::nullopt;
    const auto of = [&](const judge::Case& subject, const judge::Reading& shown, const record::Structure& structure) {
        return app::pictureOf(what.kind, {subject, shown, what.metric, m_build, what.outcome, units, structure,
                                          m_columns, m_wind, chart ? &*chart : nullptr});
    };
    const auto whose = static_cast<std::size_t>(std::max(m_whose->currentIndex(), 0));
    const auto settings = m_judging.subject().settings();
    const bool isWhole = whose >= reading->bySetting.size() || !isOfShots(what.kind) ||
                         // which parts deliveries by itself
                         (what.kind == PictureKind::delivery && settings[whose].player.empty());
    if (isWhole)
        return of(m_judging.subject(), *reading, m_structure);
    const judge::Case part = m_judging.subject().partOf(settings[whose]);
    return of(part, reading->bySetting[whose].reading, record::structureOf(part.seen()));
}

void PicturePanel::showPictures() {
    if (m_judging.reading() == nullptr || !m_metric)
        return;
    m_picture->setPicture(pictureOf({m_kind, *m_metric, m_outcome}));
    m_second->setVisible(m_beside.has_value());
    m_second->setPicture(m_beside ? pictureOf(*m_beside) : nullptr);
    const Picture* picture = m_picture->picture();
    m_finding->setText(picture != nullptr ? picture->under() : tr("There is no such picture of this number."));
    showUnder();
    m_metrics->setVisible(isOfOneNumber(m_kind));
    caption(m_picture->litText()); // a shot that is pointed at stays so
}

void PicturePanel::moveShape(const Picture::Dragged& dragged) {
    record::Card card = m_hand.test().card;
    if (const std::string why = ask::moveShape(card, dragged.at, dragged.shape, m_book.units()); !why.empty())
        emit m_declaring.refused(QString::fromStdString(why));
    else
        m_declaring.change(tr("the shapes"), [&](record::Declared& test) { test.card = card; });
    showPictures(); // what was refused is not shown as done
}

// A list of what was read, ticked; it stays open until Esc.
void PicturePanel::chooseColumns() {
    const judge::Reading* reading = m_judging.reading();
    if (reading == nullptr)
        return;
    auto* list = new QMenu(this);
    list->setObjectName(QStringLiteral("tableColumns"));
    list->setAttribute(Qt::WA_DeleteOnClose);
    for (const record::Metric metric : reading->metrics) {
        auto* box = new QCheckBox(QString::fromStdString(record::info(metric).label));
        box->setContentsMargins(8, 2, 8, 2);
        box->setChecked(m_columns.empty() || std::ranges::find(m_columns, metric) != m_columns.end());
        auto* action = new QWidgetAction(list);
        action->setDefaultWidget(box);
        list->addAction(action);
        connect(box, &QCheckBox::toggled, this, [this, metric, all = reading->metrics](bool on) {
            if (m_columns.empty())
                m_columns = all;
            std::erase(m_columns, metric);
            if (on)
                m_columns.push_back(metric);
            QStringList keys;
            for (const record::Metric column : m_columns)
                keys << QString::fromStdString(record::info(column).key);
            QSettings().setValue(columnsKey, keys);
            showPictures();
        });
    }
    list->popup(m_picture->mapToGlobal(QPoint(0, 0)));
}

// The picture in hand stays where it is; keys and tabs change the one beside it from now on.
void PicturePanel::toggleBeside() {
    if (m_beside || !m_metric)
        m_beside.reset();
    else
        m_beside = Beside{m_kind, *m_metric, m_outcome};
    m_hasChosen = true;
    if (m_beside && m_kind != PictureKind::order && m_kind != PictureKind::table)
        turnTo(PictureKind::order);
    showPictures();
}

void PicturePanel::propose(PictureKind kind) {
    if (!m_hasChosen)
        turnTo(kind);
}

// Without showing it: `showPictures` follows.
void PicturePanel::turnTo(PictureKind kind) {
    const QSignalBlocker quiet(m_tabs);
    m_tabs->setCurrentIndex(static_cast<int>(kind));
    m_kind = kind;
}

void PicturePanel::forgetChoice() {
    m_hasChosen = false;
    m_beside.reset();
}

void PicturePanel::showPictureNamed(const QString& name) {
    for (int i = 0; i < m_tabs->count(); ++i)
        if (m_tabs->tabText(i).compare(name, Qt::CaseInsensitive) == 0) {
            m_hasChosen = true;
            m_tabs->setCurrentIndex(i);
        }
}

void PicturePanel::setNarrow(bool narrow) {
    m_isNarrow = narrow;
    m_caption->setVisible(!narrow);
    showUnder();
}

void PicturePanel::setKeepable(bool keepable) {
    m_keep->setVisible(keepable);
}

void PicturePanel::showUnder() {
    m_finding->setVisible(!m_finding->text().isEmpty() && !m_isNarrow);
}

void PicturePanel::resizeEvent(QResizeEvent* event) {
    m_pair->setDirection(width() < typeScale() * besideFrom ? QBoxLayout::TopToBottom : QBoxLayout::LeftToRight);
    Panel::resizeEvent(event);
}

void PicturePanel::paintShown(QPainter& painter) const {
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillRect(m_picture->rect(), colours().sheet);
    if (m_picture->picture() != nullptr)
        m_picture->picture()->paint(painter, std::nullopt);
}

void PicturePanel::caption(const QString& text) {
    const Picture* picture = m_picture->picture();
    m_caption->setText(!text.isEmpty()      ? tr("%1 · hold X: without it").arg(text)
                       : picture != nullptr ? picture->legend()
                                            : QString());
}

} // namespace knot::app
