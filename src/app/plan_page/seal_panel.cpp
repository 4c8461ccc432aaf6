#include "app/plan_page/seal_panel.h"

#include "app/form/typed.h"
#include "app/plan_page/order_slip.h"
#include "app/session/declaring.h"
#include "app/session/test_in_hand.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/plan/seal.h"
#include "core/record/control.h"
#include "core/record/text/moment.h"
#include "core/words/decide.h"

#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>
#include <utility>

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

QString gradeText(Blinding grade, bool alone) {
    if (alone && (grade == Blinding::playerBlind || grade == Blinding::bothBlind))
        return SealPanel::tr("Nobody knows until the clubs are looked at.");
    switch (grade) {
    case Blinding::open:
        return SealPanel::tr("Everybody knows which club is which.");
    case Blinding::readingBlind:
        return SealPanel::tr("The player sees the club; the reading speaks in tags, so nobody roots for one.");
    case Blinding::playerBlind:
        return SealPanel::tr("The fitter holds the slip and knows; the player does not.");
    case Blinding::bothBlind:
        return SealPanel::tr("Neither player nor fitter knows until the decision is written.");
    }
    return {};
}

// What tags that were put on blind prove, and what not.
QString bagProves(const Test& test) {
    if (test.card.blinding == Blinding::readingBlind)
        return SealPanel::tr(
            "You see the club, so the reading is blind only for who does not know its tag: let a colleague "
            "read, or look at no head while you hit.");
    return SealPanel::tr(
        "It proves to you what your eyes did not see. To somebody else it proves nothing: for that a helper "
        "seals the clubs.");
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
    m_gradeText = captionLabel("gradeText");
    column->addWidget(m_gradeText);
    m_slip = new QPushButton(tr("Order slip"));
    m_save = new QPushButton(tr("Sealed text…"));
    auto* third = new QHBoxLayout;
    third->addWidget(labelled(QStringLiteral(" "), m_slip, "slipButton"), 1);
    third->addWidget(labelled(QStringLiteral(" "), m_save, "saveSealedText"), 1);
    column->addLayout(third);
    column->addWidget(buildQuestion());
    m_state = captionLabel("sealState");
    m_state->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard);
    m_state->setFocusPolicy(Qt::NoFocus);
    m_state->setAlignment(Qt::AlignTop);
    column->addWidget(scrolling(m_state), 1);
    column->addWidget(buildOpening());
}

QWidget* SealPanel::buildQuestion() {
    m_asking = new QWidget;
    auto* column = new QVBoxLayout(m_asking);
    column->setContentsMargins(0, size::grid, 0, size::grid);
    m_question = plainLabel();
    m_question->setObjectName(QStringLiteral("sealQuestion"));
    m_question->setWordWrap(true);
    m_yes = new QPushButton;
    m_yes->setObjectName(QStringLiteral("sealYes"));
    m_yesSoon = new QTimer(this);
    m_yesSoon->setSingleShot(true);
    m_no = new QPushButton(tr("Not now"));
    m_no->setObjectName(QStringLiteral("sealNo"));
    auto* row = new QHBoxLayout;
    row->addWidget(m_no);
    row->addStretch();
    row->addWidget(m_yes);
    column->addWidget(m_question);
    column->addLayout(row);
    m_asking->hide();
    return m_asking;
}

QWidget* SealPanel::buildOpening() {
    m_opening = new QWidget;
    auto* column = new QVBoxLayout(m_opening);
    column->setContentsMargins(0, 0, 0, 0);
    m_key = new QLineEdit;
    m_key->setEchoMode(QLineEdit::Password);
    m_key->setMaxLength(200);
    m_helperSlip = new QPushButton(tr("Show the helper's slip"));
    m_reveal = new QPushButton;
    auto* row = new QHBoxLayout;
    row->addWidget(labelled(tr("The ten words of the &key"), m_key, "key"), 3);
    row->addWidget(labelled(QStringLiteral(" "), m_helperSlip, "helperSlip"), 2);
    row->addWidget(labelled(QStringLiteral(" "), m_reveal, "revealButton"), 1);
    column->addLayout(row);
    m_byHand = new QLineEdit;
    column->addWidget(labelled(tr("Slip lost? The clubs by their tags, then Enter"), m_byHand, "byHand"));
    return m_opening;
}

void SealPanel::wire() {
    connect(m_slip, &QPushButton::clicked, this, [this] { showSlip({}); });
    connect(m_save, &QPushButton::clicked, this,
            [this] { emit saveRequested(QString::fromStdString(m_hand.test().seal.sealedText)); });
    connect(m_helperSlip, &QPushButton::clicked, this, [this] { showSlip(takeKey()); });
    connect(m_key, &QLineEdit::returnPressed, m_helperSlip, &QPushButton::click);
    connect(m_reveal, &QPushButton::clicked, this, &SealPanel::askReveal);
    connect(m_byHand, &QLineEdit::returnPressed, this, &SealPanel::askByHand);
    connect(m_yesSoon, &QTimer::timeout, this, [this] { m_yes->setEnabled(true); });
    connect(m_no, &QPushButton::clicked, this, [this] {
        m_pending = nullptr;
        m_asking->hide();
    });
    connect(m_yes, &QPushButton::clicked, this, [this] {
        m_asking->hide();
        if (const auto act = std::exchange(m_pending, nullptr))
            act();
    });
    connect(&m_hand, &TestInHand::replaced, this, [this] {
        takeKey();
        m_pending = nullptr;
        m_asking->hide();
        refresh();
    });
    connect(&m_declaring, &Declaring::sealReady, this, &SealPanel::showWords);
    connect(&m_declaring, &Declaring::changed, this, &SealPanel::refresh);
}

QString SealPanel::takeKey() {
    const QString key = m_key->text();
    m_key->clear();
    return key;
}

void SealPanel::ask(const QString& question, const QString& yes, int waitMs, std::function<void()> act) {
    m_pending = std::move(act);
    m_question->setText(question);
    m_yes->setText(yes);
    m_yes->setEnabled(waitMs == 0);
    if (waitMs > 0)
        m_yesSoon->start(waitMs);
    else
        m_yesSoon->stop();
    m_asking->show();
    m_no->setFocus();
}

void SealPanel::askSeal() {
    Typed::commitAll();
    if (!m_hand.has() || m_hand.isSealed())
        return;
    const Test& test = m_hand.test();
    if (test.card.alone) {
        QStringList tags;
        for (const std::string& tag : plan::tagWords(test.builds.size(), test.plan.tagWords))
            tags << QString::fromStdString(tag);
        return ask(
            tr("Write these on tags: %1. With your eyes shut put one on each butt. From then on the program knows "
               "the tags alone, until you look at the clubs on the Decision page.")
                .arg(tags.join(QStringLiteral(", "))),
            tr("The tags are on"), 0, [this] { m_declaring.putInBag(); });
    }
    ask(tr("Only the %1 at the screen? A slip then shows, this once, which club gets which tag and the ten words that "
           "open the seal.")
            .arg(test.card.blinding == Blinding::readingBlind ? tr("colleague who enters the tags") : tr("helper")),
        tr("Show it"), 0, [this] { m_declaring.seal(); });
}

void SealPanel::askReveal() {
    if (!m_hand.has())
        return;
    if (m_hand.test().seal.isByHand())
        return m_declaring.compareSeal(takeKey());
    if (m_key->text().trimmed().isEmpty())
        return m_declaring.refuse(tr("Type the ten words of the helper's slip first."));
    ask(tr("Reveal now which club has which tag? There is no way back."), tr("Reveal"), 1000,
        [this, key = takeKey()] { m_declaring.reveal(key); });
}

void SealPanel::askByHand() {
    if (!m_hand.isSealed())
        return;
    const auto clubs = clubsIn(m_byHand->text(), m_hand.test().sealedBuilds);
    QStringList pairs;
    for (std::size_t i = 0; i < std::min(clubs.size(), m_hand.test().builds.size()); ++i)
        pairs << tr("%1 is %2")
                     .arg(QString::fromStdString(m_hand.test().builds[i].name), QString::fromStdString(clubs[i]));
    ask(tr("By hand: %1? That nothing was switched can't be checked then, unless the words are found.")
            .arg(pairs.join(QStringLiteral(", "))),
        tr("Reveal by hand"), 1000, [this, clubs] {
            if (m_declaring.revealByHand(clubs))
                m_byHand->clear();
        });
}

// With the key the slip also says which club gets which tag; without it only the order.
void SealPanel::showSlip(const QString& key) {
    if (!m_hand.has())
        return;
    if (!m_hand.isSealed() || key.isEmpty())
        return openSlip({});
    m_declaring.peek(key, [this](const std::vector<TagOfClub>& tags) { openSlip(tags); });
}

void SealPanel::openSlip(const std::vector<TagOfClub>& tags) {
    show(new OrderSlip(orderSlipHtml(m_hand.test(), tags), OrderSlip::Kind::order, this));
}

// Nothing is sealed before its words were seen.
void SealPanel::showWords(const QString& words, const std::vector<TagOfClub>& tags) {
    if (m_declaring.sealInHand() == nullptr)
        return;
    auto* slip = new OrderSlip(orderSlipHtml(*m_declaring.sealInHand(), tags, words), OrderSlip::Kind::words, this);
    connect(slip, &OrderSlip::kept, &m_declaring, &Declaring::keepSeal);
    connect(slip, &OrderSlip::left, &m_declaring, &Declaring::leaveOpen);
    show(slip);
}

void SealPanel::show(OrderSlip* slip) {
    connect(slip, &OrderSlip::printRequested, this, &SealPanel::printRequested);
    connect(slip, &OrderSlip::saveRequested, this, &SealPanel::saveSlipRequested);
    slip->show();
}

void SealPanel::refresh() {
    if (!m_hand.has())
        return;
    const Test& test = m_hand.test();
    const auto& card = test.card;
    const bool sealed = m_hand.isSealed();
    const std::string visible = record::whyVisible(card.kind);
    QString text = gradeText(card.blinding, card.alone);
    if (!visible.empty())
        text += QStringLiteral(" ") + QString::fromStdString(visible);
    if (card.looks == record::Looks::none && card.visibility.comparisons != record::Sees::nobody)
        text += tr(" The sheet has no looks: a comparison that is seen and stops the test breaks its error rate.");
    m_gradeText->setText(text);
    m_slip->setVisible(!card.alone);
    m_save->setVisible(!card.alone || !test.seal.commitment.empty());
    m_save->setEnabled(!test.seal.commitment.empty() && !test.seal.sealedText.empty());
    m_opening->setVisible(!test.seal.isBag() && (sealed || test.seal.isByHand()));
    m_helperSlip->setVisible(sealed);
    m_reveal->setText(sealed ? tr("Reveal…") : tr("Compare"));
    m_byHand->parentWidget()->setVisible(sealed);
    if (sealed) {
        QStringList tags;
        for (const auto& build : test.builds)
            tags << QString::fromStdString(build.name);
        m_byHand->setPlaceholderText(tr("clubs of %1").arg(tags.join(QStringLiteral(", "))));
    }
    m_slip->setEnabled(!test.turns.empty());
    m_state->setText(stateText());
}

QString SealPanel::stateText() const {
    const Test& test = m_hand.test();
    const auto& seal = test.seal;
    const QString revealed = QString::fromStdString(record::Moment(seal.revealedAt).shown());
    if (seal.isBag())
        return seal.isClosed()
                   ? tr("The tags are on since %1. The clubs alone know which is which; nothing is encrypted, "
                        "since nobody else knows.\n\n%2\n\n%3")
                         .arg(QString::fromStdString(record::Moment(seal.sealedAt).shown()), bagProves(test),
                              maskingAdvice(true))
                   : tr("Named %1 by looking at the clubs:\n\n%2\n%3")
                         .arg(revealed, QString::fromStdString(seal.sealedText).section(u'\n', 1),
                              QString::fromStdString(words::sealSentence(test)));
    if (seal.isClosed())
        return tr("Sealed %1. Hash of the assignment:\n%2\n\n%3\n\n%4")
            .arg(QString::fromStdString(record::Moment(seal.sealedAt).shown()), hashText(seal.commitment),
                 seal.keyKind.empty()
                     ? tr("This seal is of an earlier version: its PIN opens it, in place of the ten words. Somebody "
                          "who lets a machine try all PINs of four digits has it within the hour.")
                     : tr("The ten words on the helper's slip open it. Nobody has it without them: not from this file, "
                          "not from an export, not with any machine."),
                 maskingAdvice(test.card.alone));
    if (seal.isByHand())
        return tr("Revealed %1 by hand, without the key: that nothing was switched can't be checked, unless the ten "
                  "words are found.")
            .arg(revealed);
    if (!seal.commitment.empty())
        return tr("Revealed %1. The sealed text:\n\n%2\nIts hash, as sha256sum gives it:\n%3\n%4")
            .arg(revealed, QString::fromStdString(seal.sealedText), hashText(seal.commitment),
                 QString::fromStdString(words::sealSentence(test)));
    if (test.card.blinding != Blinding::open && test.card.alone)
        return tr("No helper, no slip: the clubs keep the secret. The clubs and the number of laps then "
                  "stand.\n\n%1\n\n%2")
            .arg(bagProves(test), maskingAdvice(true));
    if (test.card.blinding != Blinding::open)
        return tr("Sealing draws which tag hides which club and publishes a hash of it. The order, the clubs and the "
                  "number of laps then stand.\n\n%1")
            .arg(maskingAdvice(test.card.alone));
    return {};
}

} // namespace knot::app
