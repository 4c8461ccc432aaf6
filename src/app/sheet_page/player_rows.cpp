#include "app/sheet_page/player_rows.h"

#include "app/form/panel.h"
#include "app/form/typed.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/test_in_hand.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/record/number_text.h"

#include <QCompleter>
#include <QLineEdit>
#include <QStringListModel>
#include <QVBoxLayout>

#include <algorithm>

namespace knot::app {

using record::Test;

QString aboutPlayer(const record::Player& player, const record::DisplayUnits& units) {
    const record::MetricFormat speed(record::Metric::clubSpeed, units);
    QStringList known{player.leftHanded ? PlayerRows::tr("left-handed") : PlayerRows::tr("right-handed")};
    if (player.clubSpeed)
        known << PlayerRows::tr("driver %1").arg(QString::fromStdString(speed.withUnit(*player.clubSpeed)));
    for (const auto& text : {player.shape, player.tempo})
        if (!text.empty())
            known << QString::fromStdString(text);
    if (!player.miss.empty())
        known << PlayerRows::tr("misses %1").arg(QString::fromStdString(player.miss));
    return known.join(QStringLiteral(", "));
}

PlayerRows::PlayerRows(const TestInHand& hand, Declaring& declaring, Book& book, QWidget* parent)
    : QWidget(parent)
    , m_hand(hand)
    , m_declaring(declaring)
    , m_book(book)
    , m_note(captionLabel("playersNote")) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(size::grid);
    column->addWidget(m_note);
    addRow();
}

void PlayerRows::addRow() {
    const auto at = static_cast<std::size_t>(m_rows.size());
    Row row{new QWidget, new QLineEdit, richLabel(captionLabel("aboutPlayer"))};
    auto* line = new QHBoxLayout(row.box);
    line->setContentsMargins(0, 0, 0, 0);
    line->setSpacing(10);
    const QByteArray name = at == 0 ? QByteArray("player") : "player" + QByteArray::number(qulonglong{at + 1});
    line->addWidget(labelled(at == 0 ? tr("&Name") : tr("And"), row.name, name.constData()), 2);
    line->addWidget(row.about, 3, Qt::AlignBottom);
    row.about->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
    connect(row.about, &QLabel::linkActivated, this,
            [this](const QString& link) { emit aboutRequested(link.toStdString()); });
    row.name->setMinimumWidth(40);
    Typed::whole(row.name, [this, at](const QString& typed) { take(at, typed.trimmed()); });
    static_cast<QVBoxLayout*>(layout())->insertWidget(static_cast<int>(at), row.box);
    if (!m_rows.isEmpty()) { // from name to name, then what is known of each
        QWidget::setTabOrder(m_rows.back().name, row.name);
        QWidget::setTabOrder(row.name, m_rows.front().about);
        QWidget::setTabOrder(m_rows.back().about, row.about);
    }
    m_rows << row;
}

void PlayerRows::take(std::size_t at, const QString& typed) {
    if (!m_hand.has())
        return;
    const Test& test = m_hand.test();
    const std::string name = typed.toStdString();
    if (at < test.players.size() ? test.players[at].name == name : name.empty())
        return;
    if (const auto other = test.playerIndex(name); other && *other != at) {
        m_declaring.refuse(tr("%1 is in this test already.").arg(typed));
        return refresh();
    }
    const record::Player player = name.empty() ? record::Player{} : m_book.playerCalled(name);
    m_declaring.change(tr("the player %1").arg(typed), [&](Test& changed) {
        auto& players = changed.players;
        if (name.empty())
            players.erase(players.begin() + static_cast<std::ptrdiff_t>(at));
        else if (at < players.size())
            players[at] = player;
        else
            players.push_back(player);
        changed.progress.player = record::PlayerAt();
    });
    refresh();
}

void PlayerRows::refresh() {
    if (!m_hand.has())
        return;
    const Test& test = m_hand.test();
    // Whose shots they are is the record's from the first one on where there are several.
    const bool settled = !test.shots.empty() && test.players.size() > 1;
    // Always one more than there are, so that Tab leads to it from a name that is not taken yet.
    const bool takesMore = test.shots.empty() && !test.card.alone;
    const std::size_t rows = std::max<std::size_t>(test.players.size(), 1) + (takesMore ? 1 : 0);
    while (static_cast<std::size_t>(m_rows.size()) < rows)
        addRow();
    QStringList names;
    for (const auto& entry : m_book.players())
        names << QString::fromStdString(entry.player.name);
    for (qsizetype i = 0; i < m_rows.size(); ++i) {
        const Row& row = m_rows[i];
        const auto at = static_cast<std::size_t>(i);
        row.box->setVisible(at < rows);
        row.name->setReadOnly(settled);
        if (row.name->completer() == nullptr) {
            auto* completer = new QCompleter(new QStringListModel(row.name), row.name);
            completer->setCaseSensitivity(Qt::CaseInsensitive);
            completer->setFilterMode(Qt::MatchContains);
            row.name->setCompleter(completer);
        }
        static_cast<QStringListModel*>(row.name->completer()->model())->setStringList(names);
        const bool isThere = at < test.players.size();
        if (!row.name->hasFocus())
            row.name->setText(isThere ? QString::fromStdString(test.players[at].name) : QString());
        row.name->setPlaceholderText(at == 0 ? QString() : tr("another player"));
        QString about;
        if (isThere)
            about = QStringLiteral("%1 · <a href=\"%2\" style=\"color: %4\">%3</a>")
                        .arg(aboutPlayer(test.players[at], m_book.units()).toHtmlEscaped(),
                             QString::fromStdString(test.players[at].id).toHtmlEscaped(), tr("all about them"),
                             colours().ink.name());
        row.about->setText(about);
    }
    m_note->setVisible(settled || test.players.size() > 1);
    m_note->setText(settled ? tr("Whose shots they are can be put right in the list of shots (L in the Bay).")
                            : tr("Each hits all laps, the order turned by one club from player to player; O in the Bay "
                                 "hands over to the next one."));
}

} // namespace knot::app
