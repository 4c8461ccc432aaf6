#include "app/import_page/import_page.h"

#include "app/form/key_card.h"
#include "app/form/panel.h"
#include "app/import_page/column_list.h"
#include "app/import_page/struck_view.h"
#include "app/session/book.h"
#include "app/session/test_in_hand.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/record/text/number_text.h"
#include "core/words/struck.h"
#include "files/base/file.h"

#include <QComboBox>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QItemSelectionModel>
#include <QKeyEvent>
#include <QLineEdit>

#include <algorithm>

namespace knot::app {
namespace {

constexpr files::SecondPart secondParts[] = {files::SecondPart::tag, files::SecondPart::delivery,
                                             files::SecondPart::player, files::SecondPart::length};

QString lines(const std::vector<std::string>& sentences) {
    QStringList all;
    for (const auto& sentence : sentences)
        all << QString::fromStdString(sentence);
    return all.join(QLatin1Char('\n'));
}

} // namespace

ImportPage::ImportPage(const TestInHand& hand, Book& book, QWidget* parent)
    : Page(parent)
    , m_hand(hand)
    , m_book(book)
    , m_files(book) {
    buildUi();
    wire();
}

void ImportPage::buildUi() {
    setObjectName(QStringLiteral("importPage"));
    auto* upper = new QHBoxLayout;
    upper->setSpacing(2 * size::grid);
    upper->addWidget(buildColumns(), 7);
    upper->addWidget(buildStruck(), 4);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(2 * size::grid);
    column->addLayout(upper, 1);
    column->addWidget(buildActions());
}

QWidget* ImportPage::buildColumns() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel({}, column);
    m_count = captionLabel("columnCount");
    m_count->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    auto* head = new QHBoxLayout;
    head->addWidget(headingLabel(tr("What the columns are")));
    head->addWidget(m_count, 1);
    column->addLayout(head);
    m_list = new ColumnList;
    column->addWidget(m_list, 1);
    m_rows = captionLabel("rowNotes");
    column->addWidget(m_rows);
    m_hint = captionLabel("columnHint");
    column->addWidget(m_hint);
    return panel;
}

QWidget* ImportPage::buildStruck() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel({}, column);
    auto* order = captionLabel("struckOrder", tr("in the order struck"));
    order->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    auto* head = new QHBoxLayout;
    head->addWidget(headingLabel(tr("What was hit")));
    head->addWidget(order, 1);
    column->addLayout(head);
    m_struck = new StruckView;
    column->addWidget(m_struck, 1);
    m_facts = plainLabel();
    m_facts->setObjectName(QStringLiteral("struckFacts"));
    m_facts->setWordWrap(true);
    column->addWidget(m_facts);
    m_label = captionLabel("labelHolds");
    m_second = choiceBox({tr("club · tag"), tr("club · delivery"), tr("club · player"), tr("club · length")});
    m_second->setObjectName(QStringLiteral("secondPart"));
    m_second->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    m_second->setMinimumContentsLength(15);
    m_second->setAccessibleName(tr("What the second part of the label is"));
    m_labelRow = new QWidget;
    auto* row = new QHBoxLayout(m_labelRow);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(m_label, 1);
    row->addWidget(m_second);
    column->addWidget(m_labelRow);
    m_each = choiceBox({tr("a club"), tr("a sitting")});
    m_each->setObjectName(QStringLiteral("eachFile"));
    m_each->setAccessibleName(tr("What each file is"));
    m_eachRow = new QWidget;
    auto* eachRow = new QHBoxLayout(m_eachRow);
    eachRow->setContentsMargins(0, 0, 0, 0);
    eachRow->addWidget(captionLabel("eachFileIs", tr("Each file is")), 1);
    eachRow->addWidget(m_each);
    column->addWidget(m_eachRow);
    m_player = new QLineEdit;
    m_player->setPlaceholderText(tr("who struck them"));
    column->addWidget(labelled(tr("&Player"), m_player, "importPlayer"));
    return panel;
}

QWidget* ImportPage::buildActions() {
    QVBoxLayout* column = nullptr;
    Panel* panel = headedPanel(tr("And now"), column);
    m_read = new KeyCard(tr("Enter"), tr("Read it"), "importRead");
    m_read->setDefault(true);
    m_read->setCaption(tr("what it says, and how sure that is"));
    m_lay = new KeyCard(QStringLiteral("L"), tr("Match it to a plan"), "importLay");
    m_sitting = new KeyCard(QStringLiteral("B"), tr("As free shots"), "importBag");
    m_sitting->setCaption(tr("as free shots, outside any test"));
    m_add = new KeyCard(QStringLiteral("A"), tr("Add to a test"), "importAdd");
    auto* grid = new QGridLayout;
    grid->setSpacing(size::grid);
    grid->addWidget(m_read, 0, 0);
    grid->addWidget(m_lay, 0, 1);
    grid->addWidget(m_sitting, 1, 0);
    grid->addWidget(m_add, 1, 1);
    column->addLayout(grid);
    return panel;
}

void ImportPage::wire() {
    connect(m_list->columns(), &ColumnModel::corrected, this, &ImportPage::correct, Qt::QueuedConnection);
    connect(m_list->columns(), &ColumnModel::refused, this, &ImportPage::refused);
    connect(m_list->selectionModel(), &QItemSelectionModel::currentChanged, this, &ImportPage::showHint);
    connect(m_second, &QComboBox::activated, this, [this](int at) {
        auto how = m_files.how();
        how.split = secondParts[at];
        readWith(how);
    });
    connect(m_each, &QComboBox::activated, this, [this](int at) {
        auto how = m_files.how();
        how.each = at == 0 ? files::EachFile::club : files::EachFile::sitting;
        readWith(how);
    });
    auto changeStruck = [this] {
        showStruck();
        showActions();
        emit changed();
    };
    connect(m_struck, &StruckView::clubToggled, this, [this, changeStruck](const std::string& club) {
        m_files.toggleClub(club);
        changeStruck();
    });
    connect(m_struck, &StruckView::shotToggled, this, [this, changeStruck](std::size_t shot) {
        m_files.toggleShot(shot);
        changeStruck();
    });
    connect(m_struck, &StruckView::partToggled, this, [this, changeStruck](std::size_t shot) {
        m_files.togglePart(shot);
        changeStruck();
    });
    connect(m_struck, &StruckView::inHandChanged, this, &ImportPage::showHint);
    connect(m_read, &KeyCard::clicked, this, &ImportPage::readRequested);
    connect(m_lay, &KeyCard::clicked, this, &ImportPage::layRequested);
    connect(m_sitting, &KeyCard::clicked, this, &ImportPage::sittingRequested);
    connect(m_add, &KeyCard::clicked, this, &ImportPage::addRequested);
    connect(&m_hand, &TestInHand::replaced, this, &ImportPage::markStale);
}

bool ImportPage::openFiles(const QStringList& paths) {
    std::vector<Incoming> files;
    QStringList refused;
    for (const QString& path : paths) {
        auto bytes = files::readFile(path.toStdString());
        if (bytes)
            files.push_back({QFileInfo(path).fileName(), path, std::make_shared<const std::string>(std::move(*bytes))});
        else
            refused << QString::fromStdString(files::sentence(bytes.error()));
    }
    const bool opened = !files.empty() && open(std::move(files));
    if (!refused.isEmpty())
        emit this->refused(refused.join(QLatin1Char(' ')));
    return opened;
}

bool ImportPage::openText(const QString& text) {
    return open({{tr("Pasted cells"), {}, std::make_shared<const std::string>(text.toStdString())}});
}

bool ImportPage::open(std::vector<Incoming> files) {
    if (const QString whyNot = m_files.take(std::move(files)); !whyNot.isEmpty()) {
        emit refused(whyNot);
        return false;
    }
    m_player->clear();
    markStale();
    emit changed();
    return true;
}

bool ImportPage::readWith(const IncomingFiles::How& how) {
    if (const QString whyNot = m_files.read(how); !whyNot.isEmpty()) {
        emit refused(whyNot);
        markStale();
        return false;
    }
    markStale();
    emit changed();
    return true;
}

void ImportPage::correct(const QString& heading, const QString& name) {
    auto how = m_files.how();
    how.answers[heading.toStdString()] = name.toStdString();
    const int row = m_list->currentIndex().row();
    readWith(how);
    refreshIfStale();
    m_list->setCurrentIndex(m_list->columns()->index(std::max(row, 0)));
}

bool ImportPage::asksNothing() const {
    return m_files.imported() && std::ranges::none_of(m_files.columns(), &files::ColumnTaken::isAsked);
}

files::ImportedTest ImportPage::forKeeping() const {
    files::ImportedTest kept = m_files.kept();
    const std::string player = m_player->text().trimmed().toStdString();
    if (!player.empty()) { // of the shots that name nobody
        if (!kept.test.players.empty())
            for (record::Shot& shot : kept.test.shots)
                if (shot.player.empty())
                    shot.player = player;
        if (!kept.test.playerIndex(player))
            kept.test.players.push_back(m_book.playerCalled(player));
    }
    files::settleNamelessClub(kept.test);
    return kept;
}

QString ImportPage::heading() const {
    return m_files.name();
}

QString ImportPage::subtitle() const {
    QStringList parts;
    if (m_files.count() > 1)
        parts << QString::fromStdString(record::counted(m_files.count(), "file"));
    if (m_files.imported())
        parts << QString::fromStdString(record::counted(m_files.imported()->test.shots.size(), "shot"));
    parts << QString::fromStdString(record::counted(m_files.columns().size(), "column"));
    if (const std::size_t out = m_files.leftOut(); out > 0)
        parts << tr("%1 left out").arg(out);
    return parts.join(QStringLiteral(" · "));
}

void ImportPage::refresh() {
    const auto& imported = m_files.imported();
    const auto& columns = m_files.columns();
    m_list->columns()->setColumns(columns);
    const auto asked = std::ranges::count_if(columns, &files::ColumnTaken::isAsked);
    const auto text = std::ranges::count_if(columns, [](const auto& column) {
        return column.meaning.role == files::ColumnRole::extra && !column.isAsked();
    });
    QStringList counts{tr("%1 understood").arg(static_cast<qsizetype>(columns.size()) - asked - text)};
    if (asked > 0)
        counts << tr("%1 asked").arg(asked);
    if (text > 0)
        counts << tr("%1 kept as text").arg(text);
    m_count->setText(counts.join(QStringLiteral(" · ")));
    // What is asked comes first into hand.
    const auto first = std::ranges::find_if(columns, &files::ColumnTaken::isAsked);
    m_list->setCurrentIndex(
        m_list->columns()->index(first == columns.end() ? 0 : static_cast<int>(first - columns.begin())));
    QStringList notes;
    if (imported)
        for (const auto& note : imported->notes)
            if (!note.starts_with("“")) // what is asked stands in its row
                notes << QString::fromStdString(note);
    m_rows->setText(notes.join(QLatin1Char(' ')));
    m_rows->setVisible(!notes.isEmpty());
    showStruck();
    const bool parted = imported && (!imported->separator.empty() || m_files.how().split != files::SecondPart::none);
    m_labelRow->setVisible(parted);
    if (parted && !imported->test.builds.empty()) {
        m_label->setText(tr("Taken as"));
        m_second->setCurrentIndex(
            static_cast<int>(std::ranges::find(secondParts, m_files.how().split) - std::begin(secondParts)) % 4);
    }
    const bool several = m_files.count() > 1 && imported;
    m_eachRow->setVisible(several);
    m_each->setCurrentIndex(m_files.each() == files::EachFile::club ? 0 : 1);
    showHint();
    showActions();
}

void ImportPage::showStruck() {
    const auto& imported = m_files.imported();
    std::vector<StruckView::Out> out;
    for (std::size_t i = 0; imported && i < imported->test.shots.size(); ++i)
        out.push_back(m_files.isPartLeftOut(i) ? StruckView::Out::withPart
                      : m_files.isLeftOut(i)   ? StruckView::Out::alone
                                               : StruckView::Out::no);
    m_struck->setTest(imported ? *imported : files::ImportedTest(), std::move(out));
    m_facts->setText(imported ? lines(words::struckFacts(m_files.kept().test)) : m_files.fault());
}

// What is asked of the column in hand, whole: in its row there may be no room for it. Among the shots what is in hand.
void ImportPage::showHint() {
    if (m_struck->hasFocus() && !m_struck->inHand().isEmpty())
        return m_hint->setText(m_struck->inHand());
    const auto index = m_list->currentIndex();
    if (index.isValid() && m_list->columns()->at(index.row()).isAsked()) {
        const auto& column = m_list->columns()->at(index.row());
        m_hint->setText(
            tr("%1: %2 ← → walk through the answers; or type one.")
                .arg(QString::fromStdString(column.meaning.heading), QString::fromStdString(column.question)));
    } else {
        m_hint->setText(tr(
            "Arrows choose a column; typing says what it is, for files with these headings too. Among the shots Delete "
            "leaves a shot or a club out."));
    }
}

void ImportPage::showActions() {
    const bool read = m_files.imported() && m_files.leftOut() < m_files.imported()->test.shots.size();
    for (auto* card : {m_read, m_sitting})
        card->setEnabled(read);
    const bool hasPlan = m_hand.has() && !m_hand.test().turns.empty();
    m_lay->setEnabled(read && hasPlan);
    const QString title = m_hand.has() ? QString::fromStdString(m_hand.test().title) : QString();
    m_lay->setCaption(hasPlan ? tr("“%1” has %2 stints planned").arg(title).arg(m_hand.test().turns.size())
                              : tr("open a planned test first"));
    const bool others = std::ranges::any_of(
        m_book.tests(), [&](const auto& test) { return !m_hand.has() || test.id != m_hand.test().id; });
    m_add->setEnabled(read && (m_hand.has() || others));
    m_add->setCaption(others         ? tr("as another sitting of a test of this logbook")
                      : m_hand.has() ? tr("“%1”, as another sitting").arg(title)
                                     : tr("there is none yet"));
}

void ImportPage::takeFocus() {
    refreshIfStale();
    asksNothing() ? m_read->setFocus() : m_list->setFocus();
}

void ImportPage::keyPressEvent(QKeyEvent* event) {
    if (event->modifiers() == Qt::NoModifier || event->modifiers() == Qt::KeypadModifier)
        for (const auto& [key, card] :
             {std::pair{Qt::Key_Return, m_read}, std::pair{Qt::Key_Enter, m_read}, std::pair{Qt::Key_L, m_lay},
              std::pair{Qt::Key_B, m_sitting}, std::pair{Qt::Key_A, m_add}})
            if (event->key() == key && card->isEnabled())
                return card->click();
    Page::keyPressEvent(event);
}

} // namespace knot::app
