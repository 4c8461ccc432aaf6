#include "app/decision_page/reveal_panel.h"

#include "app/decision_page/reveal_view.h"
#include "app/form/ask_bar.h"
#include "app/session/declaring.h"
#include "app/session/judging.h"
#include "app/session/test_in_hand.h"
#include "app/style/palette.h"
#include "core/plan/seal.h"
#include "core/record/text/moment.h"
#include "core/words/decide.h"

#include <QHBoxLayout>
#include <QLineEdit>
#include <QPushButton>

#include <algorithm>

namespace knot::app {
namespace {

QPushButton* plainButton(const QString& text, const char* name) {
    auto* button = new QPushButton(text);
    button->setObjectName(QLatin1String(name));
    return button;
}

} // namespace

RevealPanel::RevealPanel(const TestInHand& hand, Declaring& declaring, Judging& judging)
    : m_hand(hand)
    , m_declaring(declaring)
    , m_judging(judging)
    , m_tags(new RevealView)
    , m_text(captionLabel("revealText"))
    , m_recipe(plainButton(tr("&Sealed text…"), "decisionSealedText")) {
    setObjectName(QStringLiteral("revealPanel"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(2 * size::grid, 12, 2 * size::grid, 14);
    column->addWidget(headingLabel(tr("The reveal")));
    column->addWidget(m_tags);
    column->addWidget(buildKey());
    column->addWidget(buildBag());
    m_text->setTextInteractionFlags(Qt::TextSelectableByMouse);
    auto* said = new QHBoxLayout;
    said->addWidget(m_text, 1);
    said->addWidget(m_recipe);
    column->addLayout(said);
    wire();
}

QWidget* RevealPanel::buildKey() {
    m_keyBox = new QWidget;
    auto* row = new QHBoxLayout(m_keyBox);
    row->setContentsMargins(0, 0, 0, 0);
    m_key = new QLineEdit;
    m_key->setEchoMode(QLineEdit::Password);
    m_key->setMaxLength(200);
    m_key->setPlaceholderText(tr("the ten words of the key"));
    m_key->setObjectName(QStringLiteral("decisionKey"));
    m_key->setAccessibleName(tr("The ten words of the key, and Enter"));
    m_reveal = plainButton(tr("&Take the tags off"), "takeTagsOff");
    row->addWidget(m_key, 1);
    row->addWidget(m_reveal);
    return m_keyBox;
}

QWidget* RevealPanel::buildBag() {
    m_bagBox = new QWidget;
    auto* column = new QVBoxLayout(m_bagBox);
    column->setContentsMargins(0, 0, 0, 0);
    m_look = plainButton({}, "lookAtClubs");
    m_named = plainButton(tr("&Take the tags off"), "clubsNamed");
    auto* row = new QHBoxLayout;
    row->addWidget(m_look);
    row->addWidget(m_named);
    row->addStretch();
    column->addLayout(row);
    m_ask = new AskBar;
    m_ask->setObjectName(QStringLiteral("nameClubs"));
    m_ask->hide();
    column->addWidget(m_ask);
    return m_bagBox;
}

void RevealPanel::wire() {
    connect(m_reveal, &QPushButton::clicked, this, [this] { m_declaring.reveal(m_key->text()); });
    connect(m_key, &QLineEdit::returnPressed, m_reveal, &QPushButton::click);
    connect(m_look, &QPushButton::clicked, this, [this] { nameNext({}); });
    connect(m_named, &QPushButton::clicked, this, [this] { m_declaring.revealByHand(m_clubsNamed); });
    connect(m_recipe, &QPushButton::clicked, this,
            [this] { emit sealedTextRequested(QString::fromStdString(m_hand.test().seal.sealedText)); });
    connect(m_ask, &AskBar::done, this, [this] {
        m_ask->hide();
        m_clubsNamed.clear();
        refresh();
        m_look->setFocus();
    });
    connect(&m_hand, &TestInHand::replaced, this, &RevealPanel::forget);
    connect(&m_declaring, &Declaring::revealed, this, &RevealPanel::forget);
}

void RevealPanel::forget() {
    m_key->clear();
    m_clubsNamed.clear();
    m_ask->hide();
}

// The last club is the one left over.
void RevealPanel::nameNext(std::vector<std::string> named) {
    QStringList left;
    for (const record::Build& club : m_hand.test().sealedBuilds)
        if (std::ranges::find(named, club.name) == named.end())
            left << QString::fromStdString(club.name);
    if (left.size() == 1)
        named.push_back(left.takeFirst().toStdString());
    m_clubsNamed = named;
    if (!left.isEmpty()) {
        m_ask->show();
        m_ask->askChoice(
            tr("The club with the tag %1 is").arg(QString::fromStdString(m_hand.test().builds[named.size()].name)),
            left, [this, left, named](int answer) {
                auto next = named;
                next.push_back(left[answer].toStdString());
                nameNext(std::move(next));
            });
    }
    refresh();
    if (left.isEmpty())
        m_named->setFocus();
}

bool RevealPanel::areNamed() const {
    return !m_clubsNamed.empty() && m_clubsNamed.size() == m_hand.test().builds.size();
}

void RevealPanel::refresh() {
    const record::Test& test = m_hand.test();
    const bool isBag = test.seal.isBag();
    const bool isClosed = m_hand.isSealed();
    setVisible(test.seal.wasMade());
    refreshTags();
    m_tags->setVisible(isClosed && isBag && (!m_clubsNamed.empty() || !m_ask->isHidden())); // else cards show them
    m_keyBox->setVisible(isClosed && !isBag);
    m_bagBox->setVisible(isClosed && isBag);
    m_look->setVisible(m_ask->isHidden());
    m_look->setText(areNamed() ? tr("Name them &again") : tr("&Look at the clubs…"));
    m_named->setVisible(areNamed());
    m_recipe->setVisible(!isClosed && !isBag && !test.seal.sealedText.empty());
    m_text->setText(text());
}

void RevealPanel::refreshTags() {
    const record::Test& test = m_hand.test();
    std::vector<RevealView::Tag> tags;
    for (std::size_t b = 0; b < test.builds.size(); ++b) {
        const record::Build& build = test.builds[b];
        const std::string named = b < m_clubsNamed.size() ? m_clubsNamed[b] : std::string();
        if (m_hand.isSealed())
            tags.push_back({.tag = build.name, .club = named, .under = {}});
        else
            tags.push_back({.tag = build.tag,
                            .club = build.name,
                            .under = build.isCalled(test.card.baseline) ? tr("one's own").toStdString() : ""});
    }
    m_tags->display(std::move(tags));
}

QString RevealPanel::text() const {
    const record::Test& test = m_hand.test();
    const QString sealedAt = QString::fromStdString(record::Moment(test.seal.sealedAt).shown());
    if (m_hand.isSealed() && test.seal.isBag())
        return areNamed() ? tr("Once the tags are off there is no way back.")
                          : tr("The tags are on since %1, and the clubs alone know. When all is said, look at them and "
                               "name the club of each tag.")
                                .arg(sealedAt);
    if (m_hand.isSealed())
        return tr("Sealed %1 under %2….").arg(sealedAt, QString::fromStdString(test.seal.commitment).left(8));
    QStringList texts{QString::fromStdString(words::sealSentence(test))};
    if (plan::agreementOf(test).state == plan::Agreement::State::agrees)
        texts.back() += tr(" Anybody can check it: the SHA-256 of the sealed text is that number; sha256sum says it of "
                           "the saved file.");
    if (const judge::Reading* reading = m_judging.reading())
        texts << QString::fromStdString(words::guessSentence(*reading));
    for (const std::string& sentence : words::choiceSentences(test))
        texts << QString::fromStdString(sentence);
    texts.removeAll(QString());
    return texts.join(QStringLiteral(" · "));
}

void RevealPanel::takeFocus() {
    m_hand.test().seal.isBag() ? m_look->setFocus() : m_key->setFocus();
}

} // namespace knot::app
