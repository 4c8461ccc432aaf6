#include "app/import_page/import_page.h"

#include "app/form/key_card.h"
#include "app/form/panel.h"
#include "app/form/waiting.h"
#include "app/import_page/column_list.h"
#include "app/import_page/struck_view.h"
#include "app/session/book.h"
#include "app/session/test_in_hand.h"
#include "app/sources/headings_memory.h"
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
#include <tuple>

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

files::ReadOptions optionsWith(const files::HeadingMap& answers, files::SecondPart split, files::Watch& watch) {
    return {.headings = answers,
            .clubs = files::ReadOptions::Clubs::unknown,
            .doubt = files::ReadOptions::Doubt::takeLikelier,
            .split = split,
            .watch = &watch};
}

QString lines(const std::vector<std::string>& sentences) {
    QStringList all;
    for (const auto& sentence : sentences)
        all << QString::fromStdString(sentence);
    return all.join(QLatin1Char('\n'));
}

QString notRead(const QString& file) {
    return ImportPage::tr(
               "%1 can't be read: there is not the memory for it. Save the part with the shots as a file of its own.")
        .arg(file);
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
        if (!readWith(m_answers, secondParts[at]))
            markStale();
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
    const auto shared = std::make_shared<const std::string>(std::move(bytes));
    const auto columns =
        waited(tr("Looking at %1").arg(name), [file = name.toStdString(), shared](files::Watch& watch) {
            return files::columnsIn(file, *shared, optionsWith({}, files::SecondPart::none, watch));
        });
    if (!columns || !*columns) {
        emit refused(columns ? QString::fromStdString(files::sentence(columns->error())) : notRead(name));
        return false;
    }
    std::vector<std::string> headings;
    for (const auto& column : **columns)
        headings.push_back(column.meaning.heading);
    const auto before = std::tuple(m_name, m_path, m_bytes);
    std::tie(m_name, m_path, m_bytes) = std::tuple(name, path, shared);
    if (!readWith(rememberedFor(m_book, headings), files::SecondPart::none)) {
        std::tie(m_name, m_path, m_bytes) = before;
        return false;
    }
    m_player->clear();
    return true;
}

bool ImportPage::readWith(const files::HeadingMap& answers, files::SecondPart split) {
    struct Read {
        files::Result<files::ImportedTest> test;
        files::Result<std::vector<files::ColumnTaken>> columns; ///< where there is no test
    };
    auto given = waited(tr("Reading %1").arg(m_name),
                        [file = m_name.toStdString(), bytes = m_bytes, answers, split](auto& watch) {
                            const auto options = optionsWith(answers, split, watch);
                            Read done{files::readShots(file, *bytes, options), {}};
                            if (!done.test)
                                done.columns = files::columnsIn(file, *bytes, options);
                            return done;
                        });
    if (!given) {
        emit refused(notRead(m_name));
        return false;
    }
    Read& read = *given;
    if (!read.test && read.test.error().kind == files::ErrorKind::givenUp) {
        emit refused(QString::fromStdString(files::sentence(read.test.error())));
        return false;
    }
    m_answers = answers;
    m_split = split;
    m_fault.clear();
    m_imported.reset();
    if (read.test) {
        m_columns = read.test->columns;
        read.test->test.title = (m_path.isEmpty() ? m_name : QFileInfo(m_path).completeBaseName()).toStdString();
        m_imported = std::move(*read.test);
    } else {
        if (read.columns)
            m_columns = std::move(*read.columns);
        m_fault =
            QString::fromStdString(files::sentence(read.test.error())) +
            (isAboutColumns(read.test.error().kind) ? tr(" Say what that column is, or keep it as text.") : QString());
    }
    markStale();
    emit changed();
    return true;
}

void ImportPage::correct(const QString& heading, const QString& name) {
    auto answers = m_answers;
    answers[heading.toStdString()] = name.toStdString();
    const int row = m_list->currentIndex().row();
    readWith(answers, m_split);
    markStale(); // also back to what stood there
    refreshIfStale();
    m_list->setCurrentIndex(m_list->columns()->index(std::max(row, 0)));
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
