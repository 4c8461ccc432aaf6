#include "app/player_page/player_page.h"

#include "app/form/number_field.h"
#include "app/form/panel.h"
#include "app/form/typed.h"
#include "app/player_page/usual_rows.h"
#include "app/session/book.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/record/text/number_text.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QScrollArea>

#include <algorithm>

namespace knot::app {
namespace {

using record::Player;

constexpr std::size_t mostUndone = 200;

struct TextField {
    const char* name;
    const char* label;
    std::string Player::*member;
};
constexpr TextField swing[] = {{"tempo", QT_TR_NOOP("Tempo"), &Player::tempo},
                               {"transition", QT_TR_NOOP("Transition"), &Player::transition},
                               {"shape", QT_TR_NOOP("Usual shape"), &Player::shape},
                               {"miss", QT_TR_NOOP("Usual miss"), &Player::miss}};
constexpr TextField words[] = {{"plays", QT_TR_NOOP("Where and how much is played; wind, firmness"), &Player::plays},
                               {"played", QT_TR_NOOP("What was played before, and why it was left"), &Player::played},
                               {"goals", QT_TR_NOOP("Wants"), &Player::goals},
                               {"health", QT_TR_NOOP("To look after"), &Player::health}};

using NumberOf = PlayerPage::NumberOf;
record::Wanted wantedOf(const NumberOf& number, const record::DisplayUnits& units) {
    return number.isSpeed ? record::wantedOf(record::Metric::clubSpeed, units)
                          : record::Wanted{record::Quantity::length, record::Unit::cm};
}

constexpr NumberOf numbersOf[] = {{"speed", QT_TR_NOOP("Driver speed"), &Player::clubSpeed, true},
                                  {"ironSpeed", QT_TR_NOOP("Seven-iron speed"), &Player::ironSpeed, true},
                                  {"height", QT_TR_NOOP("Height"), &Player::height, false},
                                  {"wristToFloor", QT_TR_NOOP("Wrist to floor"), &Player::wristToFloor, false},
                                  {"handSize", QT_TR_NOOP("Wrist to fingertip"), &Player::hand, false}};

QString testsWords(std::size_t tests) {
    return tests == 0 ? PlayerPage::tr("no test") : QString::fromStdString(record::counted(tests, "test"));
}

} // namespace

PlayerPage::PlayerPage(Book& book, QWidget* parent)
    : Page(parent)
    , m_book(book) {
    setObjectName(QStringLiteral("playerPage"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(2 * size::grid);
    row->addWidget(buildList(), 2);
    m_about = buildAbout();
    row->addWidget(m_about, 7);
    m_none =
        plainLabel(tr("Nobody is kept yet. A name on a test sheet, in a shot file or in the Bay brings somebody."));
    m_none->setWordWrap(true);
    m_none->setAlignment(Qt::AlignCenter);
    row->addWidget(m_none, 7);
    wire();
}

QWidget* PlayerPage::buildList() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("Players"), column);
    m_search = new QLineEdit;
    m_search->setObjectName(QStringLiteral("playerSearch"));
    m_search->setAccessibleName(tr("Search players"));
    m_search->setPlaceholderText(tr("Type a name"));
    m_search->setMinimumWidth(40);
    m_list = new QListWidget;
    m_list->setObjectName(QStringLiteral("playerList"));
    m_list->setAccessibleName(tr("Players"));
    m_list->setFrameShape(QFrame::NoFrame);
    m_list->setWordWrap(true);
    m_list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_list->viewport()->setAutoFillBackground(false);
    column->addWidget(m_search);
    column->addWidget(m_list, 1);
    return panel;
}

QWidget* PlayerPage::buildAbout() {
    auto* content = new QWidget;
    auto* whole = new QVBoxLayout(content);
    whole->setContentsMargins(0, 0, 6, 0);
    whole->setSpacing(2 * size::grid);
    QVBoxLayout* column = nullptr;
    whole->addWidget(headedPanel(tr("Who it is"), column));
    m_name = new QLineEdit;
    m_hand = choiceBox({tr("right-handed"), tr("left-handed")});
    m_costs = choiceBox({tr("either side alike"), tr("left"), tr("right")});
    auto* first = new QHBoxLayout;
    first->setSpacing(10);
    first->addWidget(labelled(tr("&Name"), m_name, "playerName"), 4);
    first->addWidget(labelled(tr("Hand"), m_hand, "hand"), 3);
    first->addWidget(labelled(tr("The side that costs"), m_costs, "costs"), 3);
    column->addLayout(first);
    auto* lines = new QGridLayout;
    lines->setHorizontalSpacing(10);
    lines->setVerticalSpacing(6);
    constexpr int across = 3;
    int place = 0;
    auto put = [&](QWidget* box) {
        lines->addWidget(box, place / across, place % across);
        ++place;
    };
    for (const NumberOf& one : numbersOf) {
        auto* field = new NumberField({});
        QWidget* box = labelled(tr(one.label), field, one.name);
        m_numbers << Number{field, box->findChild<QLabel*>(QLatin1String(one.name) + QStringLiteral("Label")), one};
        put(box);
    }
    for (const TextField& one : swing) {
        m_texts << Text{new QLineEdit, one.member};
        put(labelled(tr(one.label), m_texts.back().field, one.name));
    }
    for (int i = 0; i < across; ++i)
        lines->setColumnStretch(i, 1);
    column->addLayout(lines);
    for (const TextField& one : words) {
        m_texts << Text{new QLineEdit, one.member};
        column->addWidget(labelled(tr(one.label), m_texts.back().field, one.name));
    }
    whole->addWidget(headedPanel(tr("What is usual with a club"), column));
    m_usual = new UsualRows;
    column->addWidget(m_usual);
    whole->addWidget(buildSame());
    whole->addStretch();
    for (QLineEdit* field : content->findChildren<QLineEdit*>())
        field->setMinimumWidth(40);
    return scrolling(content);
}

QWidget* PlayerPage::buildSame() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("Kept twice?"), column);
    m_same = choiceBox({});
    m_join = new QPushButton;
    m_join->setObjectName(QStringLiteral("joinPlayers"));
    m_forget = new QPushButton(tr("Take out of the logbook"));
    m_forget->setObjectName(QStringLiteral("forgetPlayer"));
    auto* row = new QHBoxLayout;
    row->setSpacing(10);
    row->addWidget(labelled(tr("The same person as"), m_same, "samePlayer"), 3);
    row->addWidget(m_join, 3, Qt::AlignBottom);
    row->addWidget(m_forget, 2, Qt::AlignBottom);
    column->addLayout(row);
    return panel;
}

void PlayerPage::wire() {
    connect(&m_book, &Book::playersChanged, this, &PlayerPage::markStale);
    connect(&m_book, &Book::changed, this, &PlayerPage::markStale);
    connect(&m_book, &Book::unitsChanged, this, &PlayerPage::markStale);
    connect(m_search, &QLineEdit::textChanged, this, &PlayerPage::markStale);
    connect(m_search, &QLineEdit::returnPressed, this, [this] { m_list->setFocus(); });
    connect(m_list, &QListWidget::currentItemChanged, this, [this](const QListWidgetItem* item) {
        if (item == nullptr || item->data(Qt::UserRole).toString().toStdString() == m_id)
            return;
        Typed::commitAll();
        m_id = item->data(Qt::UserRole).toString().toStdString();
        for (const Number& number : m_numbers)
            number.field->forget();
        refreshAbout();
        emit changed();
    });
    Typed::whole(m_name, [this](const QString& typed) {
        if (typed.trimmed().isEmpty())
            return refreshAbout();
        change([&](Player& player) { player.name = typed.trimmed().toStdString(); });
    });
    connect(m_hand, &QComboBox::activated, this,
            [this](int hand) { change([&](Player& player) { player.leftHanded = hand == 1; }); });
    connect(m_costs, &QComboBox::activated, this,
            [this](int side) { change([&](Player& player) { player.costs = static_cast<record::Side>(side); }); });
    for (const Text& text : m_texts)
        Typed::in(text.field, [this, text](const QString& typed) {
            change([&](Player& player) { player.*text.member = typed.trimmed().toStdString(); });
        });
    for (const Number& number : m_numbers)
        connect(number.field, &NumberField::edited, this, [this, number](std::optional<double> shown) {
            const record::Unit unit = wantedOf(number.of, m_book.units()).usual;
            change([&](Player& player) {
                player.*number.of.member = shown ? std::optional(record::toInternal(*shown, unit)) : std::nullopt;
            });
        });
    connect(m_usual, &UsualRows::edited, this,
            [this](const std::vector<record::Usual>& usual) { change([&](Player& player) { player.usual = usual; }); });
    connect(m_same, &QComboBox::activated, this, &PlayerPage::refreshAbout);
    connect(m_join, &QPushButton::clicked, this, &PlayerPage::join);
    connect(m_forget, &QPushButton::clicked, this, &PlayerPage::forget);
}

const Player* PlayerPage::player() const {
    const auto& players = m_book.players();
    const auto at = std::ranges::find_if(players, [this](const auto& entry) { return entry.player.id == m_id; });
    return at == players.end() ? nullptr : &at->player;
}

void PlayerPage::show(const std::string& id) {
    Typed::commitAll();
    m_search->clear();
    m_id = id;
    markStale();
}

void PlayerPage::change(const std::function<void(Player&)>& edit) {
    const Player* before = player();
    if (before == nullptr)
        return;
    Player changed = *before;
    edit(changed);
    if (changed == *before)
        return;
    Player was = *before; // the list goes with the change
    if (!m_book.savePlayer(changed))
        return refreshAbout();
    m_undo.push_back(std::move(was));
    if (m_undo.size() > mostUndone)
        m_undo.erase(m_undo.begin());
    emit this->changed();
}

void PlayerPage::undo() {
    if (m_undo.empty())
        return;
    const Player was = std::move(m_undo.back());
    m_undo.pop_back();
    m_id = was.id;
    if (m_book.savePlayer(was))
        emit changed();
}

void PlayerPage::join() {
    const Player* own = player();
    const std::string from = m_same->currentData().toString().toStdString();
    if (own == nullptr || from.empty())
        return;
    const QString name = QString::fromStdString(own->name);
    if (!m_book.joinPlayers(from, m_id))
        return;
    m_undo.clear(); // there are no longer two to go back to
    emit complained(tr("They are one now: %1, with the tests of both.").arg(name));
    emit changed();
}

void PlayerPage::forget() {
    if (m_book.removePlayer(m_id)) {
        std::erase_if(m_undo, [this](const Player& player) { return player.id == m_id; });
        m_id.clear();
        emit changed();
    }
}

void PlayerPage::refresh() {
    const auto& players = m_book.players();
    const QSignalBlocker quiet(m_list);
    m_list->clear();
    if (player() == nullptr)
        m_id = players.empty() ? std::string() : players.front().player.id;
    for (const auto& entry : players) {
        const QString name = QString::fromStdString(entry.player.name);
        if (!name.contains(m_search->text().trimmed(), Qt::CaseInsensitive) && entry.player.id != m_id)
            continue;
        const QString tests = testsWords(entry.tests);
        auto* item = new QListWidgetItem(entry.player.leftHanded ? tr("%1\nleft-handed, %2").arg(name, tests)
                                                                 : QStringLiteral("%1\n%2").arg(name, tests));
        item->setData(Qt::UserRole, QString::fromStdString(entry.player.id));
        m_list->addItem(item);
        if (entry.player.id == m_id)
            m_list->setCurrentItem(item);
    }
    refreshAbout();
    emit changed();
}

void PlayerPage::refreshAbout() {
    const Player* shown = player();
    m_about->setVisible(shown != nullptr);
    m_none->setVisible(shown == nullptr);
    if (shown == nullptr)
        return;
    auto showText = [](QLineEdit* field, const std::string& text) {
        if (!field->hasFocus())
            field->setText(QString::fromStdString(text));
    };
    showText(m_name, shown->name);
    m_hand->setCurrentIndex(shown->leftHanded ? 1 : 0);
    m_costs->setCurrentIndex(static_cast<int>(shown->costs));
    for (const Text& text : m_texts)
        showText(text.field, shown->*text.member);
    for (const Number& number : m_numbers) {
        const auto& value = shown->*number.of.member;
        const record::Wanted of = wantedOf(number.of, m_book.units());
        number.field->setRange({.low = 0, .high = 300, .aboveLow = true, .of = of});
        number.field->display(value ? std::optional(record::fromInternal(*value, of.usual)) : std::nullopt, 1);
        number.label->setText(
            tr("%1, %2").arg(tr(number.of.label), QString::fromStdString(std::string(record::symbol(of.usual)))));
    }
    m_usual->display(shown->usual, m_book.units());
    const QString chosen = m_same->currentData().toString();
    m_same->clear();
    m_same->addItem(tr("nobody else"), QString());
    std::size_t tests = 0;
    for (const auto& entry : m_book.players())
        if (entry.player.id == m_id)
            tests = entry.tests;
        else
            m_same->addItem(QStringLiteral("%1, %2, %3")
                                .arg(QString::fromStdString(entry.player.name),
                                     entry.player.leftHanded ? tr("left-handed") : tr("right-handed"),
                                     testsWords(entry.tests)),
                            QString::fromStdString(entry.player.id));
    m_same->setCurrentIndex(std::max(0, m_same->findData(chosen)));
    m_join->setVisible(!m_same->currentData().toString().isEmpty());
    m_join->setText(tr("Make them one, called %1").arg(QString::fromStdString(shown->name)));
    m_forget->setVisible(tests == 0);
}

QString PlayerPage::heading() const {
    const Player* shown = player();
    return shown != nullptr ? QString::fromStdString(shown->name) : tr("Players");
}

QString PlayerPage::subtitle() const {
    return tr("Kept once, for all tests of this logbook.");
}

void PlayerPage::takeFocus() {
    m_list->setFocus();
}

} // namespace knot::app
