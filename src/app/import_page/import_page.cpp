#include "app/import_page/import_page.h"

#include "app/form/key_card.h"
#include "app/form/panel.h"
#include "app/import_page/column_list.h"
#include "app/import_page/struck_view.h"
#include "app/session/book.h"
#include "app/session/test_in_hand.h"
#include "app/sources/headings_memory.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/record/number_text.h"
#include "core/words/struck.h"
#include "files/file.h"

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

// What keeps a file from being read and may be mended by saying what a column is.
bool isAboutColumns(files::ErrorKind kind) {
    using files::ErrorKind;
    return kind == ErrorKind::noMetricColumn || kind == ErrorKind::noBuildColumn || kind == ErrorKind::notANumber ||
           kind == ErrorKind::ambiguousNumber || kind == ErrorKind::beyondMeasure || kind == ErrorKind::unknownWord ||
           kind == ErrorKind::duplicateColumn || kind == ErrorKind::unknownUnit || kind == ErrorKind::missingUnit;
}

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
    , m_book(book) {
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
    m_lay = new KeyCard(QStringLiteral("L"), tr("Lay it on a plan"), "importLay");
    m_sitting = new KeyCard(QStringLiteral("B"), tr("Into the bag"), "importBag");
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
        m_split = secondParts[at];
        m_fault = read();
        markStale();
        emit changed();
    });
    connect(m_read, &KeyCard::clicked, this, &ImportPage::readRequested);
    connect(m_lay, &KeyCard::clicked, this, &ImportPage::layRequested);
    connect(m_sitting, &KeyCard::clicked, this, &ImportPage::sittingRequested);
    connect(m_add, &KeyCard::clicked, this, &ImportPage::addRequested);
    connect(&m_hand, &TestInHand::replaced, this, &ImportPage::markStale);
}

bool ImportPage::openFile(const QString& path) {
    auto bytes = files::readFile(path.toStdString());
    if (!bytes) {
        emit refused(QString::fromStdString(files::sentence(bytes.error())));
        return false;
    }
    return open(QFileInfo(path).fileName(), path, std::move(*bytes));
}

bool ImportPage::openText(const QString& text) {
    return open(tr("Pasted cells"), {}, text.toStdString());
}

bool ImportPage::open(const QString& name, const QString& path, std::string bytes) {
    const files::ReadOptions options{.clubs = files::ReadOptions::Clubs::unknown,
                                     .doubt = files::ReadOptions::Doubt::takeLikelier};
    auto columns = files::columnsIn(name.toStdString(), bytes, options);
    if (!columns) {
        emit refused(QString::fromStdString(files::sentence(columns.error())));
        return false;
    }
    m_name = name;
    m_path = path;
    m_bytes = std::move(bytes);
    m_split = files::SecondPart::none;
    std::vector<std::string> headings;
    for (const auto& column : *columns)
        headings.push_back(column.meaning.heading);
    m_answers = rememberedFor(m_book, headings);
    m_player->clear();
    m_fault = read();
    markStale();
    emit changed();
    return true;
}

QString ImportPage::read() {
    const files::ReadOptions options{.headings = m_answers,
                                     .clubs = files::ReadOptions::Clubs::unknown,
                                     .doubt = files::ReadOptions::Doubt::takeLikelier,
                                     .split = m_split};
    m_imported.reset();
    const std::string name = m_name.toStdString();
    auto read = files::readShots(name, m_bytes, options);
    if (read)
        m_columns = read->columns;
    else if (auto columns = files::columnsIn(name, m_bytes, options))
        m_columns = std::move(*columns);
    if (!read)
        return QString::fromStdString(files::sentence(read.error())) +
               (isAboutColumns(read.error().kind) ? tr(" Say what that column is, or keep it as text.") : QString());
    read->test.title = (m_path.isEmpty() ? m_name : QFileInfo(m_path).completeBaseName()).toStdString();
    m_imported = std::move(*read);
    return {};
}

void ImportPage::correct(const QString& heading, const QString& name) {
    m_answers[heading.toStdString()] = name.toStdString();
    const int row = m_list->currentIndex().row();
    m_fault = read();
    markStale();
    refreshIfStale();
    m_list->setCurrentIndex(m_list->columns()->index(std::max(row, 0)));
    emit changed();
}

void ImportPage::remember() {
    // What was asked and left as it stood is answered too.
    std::vector<std::string> headings;
    for (const auto& column : m_columns) {
        headings.push_back(column.meaning.heading);
        if (column.isAsked())
            m_answers[column.meaning.heading] = files::canonicalName(column.meaning);
    }
    if (m_answers.empty())
        return;
    rememberFor(m_book, headings, m_answers);
}

bool ImportPage::asksNothing() const {
    return m_imported && std::ranges::none_of(m_columns, &files::ColumnTaken::isAsked);
}

files::ImportedTest ImportPage::forKeeping() const {
    files::ImportedTest kept = *m_imported;
    const std::string player = m_player->text().trimmed().toStdString();
    if (!player.empty()) {
        kept.test.player = player;
        kept.test.profile.name = player;
    }
    files::settleNamelessClub(kept.test);
    return kept;
}

QString ImportPage::heading() const {
    return m_name;
}

QString ImportPage::subtitle() const {
    QStringList parts;
    if (m_imported)
        parts << QString::fromStdString(record::counted(m_imported->test.shots.size(), "shot"));
    parts << QString::fromStdString(record::counted(m_columns.size(), "column"));
    return parts.join(QStringLiteral(" · "));
}

void ImportPage::refresh() {
    m_list->columns()->setColumns(m_columns);
    const auto asked = std::ranges::count_if(m_columns, &files::ColumnTaken::isAsked);
    const auto text = std::ranges::count_if(m_columns, [](const auto& column) {
        return column.meaning.role == files::ColumnRole::extra && !column.isAsked();
    });
    QStringList counts{tr("%1 understood").arg(static_cast<qsizetype>(m_columns.size()) - asked - text)};
    if (asked > 0)
        counts << tr("%1 asked").arg(asked);
    if (text > 0)
        counts << tr("%1 kept as text").arg(text);
    m_count->setText(counts.join(QStringLiteral(" · ")));
    // What is asked comes first into hand.
    const auto first = std::ranges::find_if(m_columns, &files::ColumnTaken::isAsked);
    m_list->setCurrentIndex(
        m_list->columns()->index(first == m_columns.end() ? 0 : static_cast<int>(first - m_columns.begin())));
    QStringList notes;
    if (m_imported)
        for (const auto& note : m_imported->notes)
            if (!note.starts_with("“")) // what is asked stands in its row
                notes << QString::fromStdString(note);
    m_rows->setText(notes.join(QLatin1Char(' ')));
    m_rows->setVisible(!notes.isEmpty());
    m_struck->setTest(m_imported ? m_imported->test : record::Test());
    m_facts->setText(m_imported ? lines(words::struckFacts(m_imported->test)) : m_fault);
    const bool parted = m_imported && (!m_imported->separator.empty() || m_split != files::SecondPart::none);
    m_labelRow->setVisible(parted);
    if (parted && !m_imported->test.builds.empty()) {
        m_label->setText(tr("Taken as"));
        m_second->setCurrentIndex(static_cast<int>(std::ranges::find(secondParts, m_split) - std::begin(secondParts)) %
                                  4);
    }
    showHint();
    showActions();
}

// What is asked of the column in hand, whole: in its row there may be no room for it.
void ImportPage::showHint() {
    const auto index = m_list->currentIndex();
    if (index.isValid() && m_list->columns()->at(index.row()).isAsked()) {
        const auto& column = m_list->columns()->at(index.row());
        m_hint->setText(
            tr("%1: %2 ← → walk through the answers; or type one.")
                .arg(QString::fromStdString(column.meaning.heading), QString::fromStdString(column.question)));
    } else {
        m_hint->setText(
            tr("Arrows choose a column; typing says what it is. Remembered for files with these headings."));
    }
}

void ImportPage::showActions() {
    const bool read = m_imported.has_value();
    for (auto* card : {m_read, m_sitting})
        card->setEnabled(read);
    const bool hasPlan = m_hand.has() && !m_hand.test().plan.turns.empty();
    m_lay->setEnabled(read && hasPlan && !m_path.isEmpty());
    const QString title = m_hand.has() ? QString::fromStdString(m_hand.test().title) : QString();
    m_lay->setCaption(hasPlan ? tr("“%1” has %2 stints planned").arg(title).arg(m_hand.test().plan.turns.size())
                              : tr("open a planned test first"));
    m_add->setEnabled(read && m_hand.has());
    m_add->setCaption(m_hand.has() ? tr("“%1”, as another sitting").arg(title) : tr("open the test first"));
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
