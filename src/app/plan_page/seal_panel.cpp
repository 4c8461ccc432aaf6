#include "app/plan_page/seal_panel.h"

#include "app/form/typed.h"
#include "app/plan_page/order_slip.h"
#include "app/session/declaring.h"
#include "app/session/test_in_hand.h"
#include "app/style/palette.h"
#include "core/plan/seal.h"
#include "core/record/control.h"
#include "core/record/moment.h"

#include <QComboBox>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QStandardItemModel>
#include <QVBoxLayout>

namespace knot::app {
namespace {

using record::Blinding;
using record::Test;

// In two lines, since it has no place to break.
QString hashText(const std::string& hash) {
    const QString text = QString::fromStdString(hash);
    return text.left(32) + QLatin1Char('\n') + text.mid(32);
}

// Names with commas between, where a name may hold one itself: the longest club that fits is taken.
std::vector<std::string> clubsIn(const QString& text, const std::vector<record::Build>& clubs) {
    std::vector<std::string> names;
    QString rest = text.trimmed();
    while (!rest.isEmpty()) {
        QString found = rest.section(QLatin1Char(','), 0, 0);
        for (const auto& club : clubs) {
            const QString name = QString::fromStdString(club.name);
            const QString after = rest.mid(name.size()).trimmed();
            if (rest.startsWith(name) && name.size() > found.trimmed().size() &&
                (after.isEmpty() || after.startsWith(QLatin1Char(','))))
                found = name;
        }
        names.push_back(found.trimmed().toStdString());
        rest = rest.mid(found.size()).trimmed();
        if (rest.startsWith(QLatin1Char(',')))
            rest = rest.mid(1).trimmed();
    }
    return names;
}

QString gradeText(Blinding grade) {
    switch (grade) {
    case Blinding::open:
        return SealPanel::tr("Everybody knows which club is which.");
    case Blinding::readingBlind:
        return SealPanel::tr("The player sees the club; the reading speaks in tags, so nobody roots for one.");
    case Blinding::playerBlind:
        return SealPanel::tr("The fitter holds the PIN and knows; the player does not.");
    case Blinding::bothBlind:
        return SealPanel::tr("Neither player nor fitter knows until the decision is written.");
    }
    return {};
}

} // namespace

SealPanel::SealPanel(const TestInHand& hand, Declaring& declaring, QWidget* parent)
    : Panel(parent)
    , m_hand(hand)
    , m_declaring(declaring) {
    buildUi();
    wire();
}

void SealPanel::buildUi() {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(2 * size::grid, 12, 2 * size::grid, 14);
    column->setSpacing(6);
    column->addWidget(headingLabel(tr("Seal")));
    m_grade =
        choiceBox({tr("open"), tr("player sees, reading blind"), tr("player blind"), tr("player and fitter blind")});
    m_way = choiceBox({tr("a helper"), tr("me, alone")});
    auto* first = new QHBoxLayout;
    first->addWidget(labelled(tr("&Who knows"), m_grade, "grade"), 3);
    first->addWidget(labelled(tr("Done by"), m_way, "way"), 2);
    column->addLayout(first);
    m_gradeText = captionLabel("gradeText");
    column->addWidget(m_gradeText);
    auto* second = new QHBoxLayout;
    const QString whats[] = {tr("Shots seen by"), tr("Averages by"), tr("Comparisons by")};
    const char* names[] = {"seesShots", "seesAverages", "seesComparisons"};
    for (int i = 0; i < 3; ++i) {
        m_sees[i] = choiceBox({tr("nobody"), tr("the fitter"), tr("everyone")});
        second->addWidget(labelled(whats[i], m_sees[i], names[i]), 1);
    }
    column->addLayout(second);
    m_pin = new QLineEdit;
    m_pin->setEchoMode(QLineEdit::Password);
    m_pin->setMaxLength(64);
    m_act = new QPushButton;
    m_slip = new QPushButton(tr("Order slip"));
    auto* third = new QHBoxLayout;
    third->addWidget(labelled(tr("&PIN of the helper"), m_pin, "pin"), 3);
    third->addWidget(labelled(QStringLiteral(" "), m_act, "sealButton"), 2);
    third->addWidget(labelled(QStringLiteral(" "), m_slip, "slipButton"), 2);
    column->addLayout(third);
    m_state = captionLabel("sealState");
    m_state->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard);
    m_state->setFocusPolicy(Qt::NoFocus);
    m_state->setAlignment(Qt::AlignTop);
    column->addWidget(scrolling(m_state), 1);
    m_byHand = new QLineEdit;
    column->addWidget(labelled(tr("PIN lost? The clubs by their tags, then Enter"), m_byHand, "byHand"));
}

void SealPanel::wire() {
    connect(m_grade, &QComboBox::activated, this, [this](int grade) {
        m_declaring.change(tr("who knows the clubs"),
                           [&](Test& test) { test.card.blinding = static_cast<Blinding>(grade); });
    });
    connect(m_way, &QComboBox::activated, this, [this](int way) {
        m_declaring.change(tr("who hands over"), [&](Test& test) { test.card.alone = way == 1; });
    });
    for (int i = 0; i < 3; ++i)
        connect(m_sees[i], &QComboBox::activated, this, [this, i](int who) {
            m_declaring.change(tr("who sees the numbers"), [&](Test& test) {
                auto& v = test.card.visibility;
                (i == 0 ? v.shots : i == 1 ? v.averages : v.comparisons) = static_cast<record::Sees>(who);
            });
        });
    connect(m_act, &QPushButton::clicked, this, &SealPanel::sealOrReveal);
    connect(m_pin, &QLineEdit::returnPressed, this, [this] {
        if (!m_hand.isSealed())
            sealOrReveal();
        else
            showSlip();
    });
    connect(m_byHand, &QLineEdit::returnPressed, this, [this] {
        if (m_hand.isSealed() && m_declaring.revealByHand(clubsIn(m_byHand->text(), m_hand.test().sealedBuilds)))
            m_byHand->clear();
    });
    connect(m_slip, &QPushButton::clicked, this, &SealPanel::showSlip);
    connect(&m_hand, &TestInHand::replaced, this, [this] {
        m_pin->clear();
        refresh();
    });
    connect(&m_declaring, &Declaring::changed, this, &SealPanel::refresh);
}

void SealPanel::sealOrReveal() {
    Typed::commitAll();
    if (!m_hand.has())
        return;
    if (m_hand.isSealed())
        m_declaring.reveal(m_pin->text());
    else
        m_declaring.seal(m_pin->text());
}

void SealPanel::showSlip() {
    if (!m_hand.has())
        return;
    // With the PIN the slip also says which club gets which tag; without it only the order.
    if (!m_hand.isSealed() || m_pin->text().isEmpty())
        return openSlip({});
    m_declaring.peek(m_pin->text(), [this](const std::vector<TagOfClub>& tags) { openSlip(tags); });
}

void SealPanel::openSlip(const std::vector<TagOfClub>& tags) {
    m_pin->clear();
    auto* slip = new OrderSlip(orderSlipHtml(m_hand.test(), tags), this);
    connect(slip, &OrderSlip::printRequested, this, &SealPanel::printRequested);
    slip->show();
}

void SealPanel::refresh() {
    if (!m_hand.has())
        return;
    const Test& test = m_hand.test();
    const auto& card = test.card;
    const bool sealed = m_hand.isSealed();
    const bool wasSealed = !test.seal.commitment.empty();
    m_grade->setCurrentIndex(static_cast<int>(card.blinding));
    m_way->setCurrentIndex(card.alone ? 1 : 0);
    const record::Sees sees[] = {card.visibility.shots, card.visibility.averages, card.visibility.comparisons};
    for (int i = 0; i < 3; ++i)
        m_sees[i]->setCurrentIndex(static_cast<int>(sees[i]));
    const std::string visible = record::whyVisible(card.kind);
    auto* items = qobject_cast<QStandardItemModel*>(m_grade->model());
    for (int grade = 2; grade <= 3; ++grade)
        items->item(grade)->setEnabled(visible.empty());
    QString text = gradeText(card.blinding);
    if (!visible.empty())
        text += QStringLiteral(" ") + QString::fromStdString(visible);
    if (card.looks == record::Looks::none && card.visibility.comparisons != record::Sees::nobody)
        text += tr(" The sheet has no looks: a comparison that is seen and stops the test breaks its error rate.");
    m_gradeText->setText(text);
    m_grade->setEnabled(!wasSealed);
    const bool blind = card.blinding != Blinding::open;
    m_pin->setEnabled(blind && (sealed || !wasSealed));
    m_act->setEnabled(m_pin->isEnabled());
    m_act->setText(sealed ? tr("Reveal") : tr("Seal"));
    m_byHand->parentWidget()->setVisible(sealed);
    if (sealed) {
        QStringList tags;
        for (const auto& build : test.builds)
            tags << QString::fromStdString(build.name);
        m_byHand->setPlaceholderText(tr("clubs of %1").arg(tags.join(QStringLiteral(", "))));
    }
    m_slip->setEnabled(!test.plan.turns.empty());
    QString state;
    if (sealed)
        state =
            tr("Sealed %1. Hash of the assignment:\n%2\n\nThe PIN with “Order slip” shows the helper which club gets "
               "which tag. It hides this from everybody who looks, here, in the file and in every export. Somebody who "
               "lets a machine try all PINs of four digits has it within the hour; a longer PIN takes longer. If the "
               "PIN "
               "is lost, the tags on the clubs still tell, but not that nothing was switched.\n\n%3")
                .arg(QString::fromStdString(record::momentShown(test.seal.sealedAt)), hashText(test.seal.commitment),
                     maskingAdvice(card.alone));
    else if (wasSealed && test.seal.sealedText.empty())
        state = tr("Revealed %1 by hand, without the PIN: that nothing was switched can't be checked.")
                    .arg(QString::fromStdString(record::momentShown(test.seal.revealedAt)));
    else if (wasSealed)
        state = tr("Revealed %1. The sealed text, to the letter:\n\n%2\nIts hash, as sha256sum gives it:\n%3\n%4")
                    .arg(QString::fromStdString(record::momentShown(test.seal.revealedAt)),
                         QString::fromStdString(test.seal.sealedText), hashText(test.seal.commitment),
                         plan::sha256(test.seal.sealedText) == test.seal.commitment
                             ? tr("They agree: nothing was switched.")
                             : tr("They do not agree: the assignment was changed."));
    else if (blind)
        state = tr("Sealing draws which tag hides which club and publishes a hash of it. The order, the clubs and the "
                   "number of laps then stand.\n\n%1")
                    .arg(maskingAdvice(card.alone));
    m_state->setText(state);
}

} // namespace knot::app
