#pragma once

#include "app/form/page.h"
#include "files/import/shot_file.h"

#include <memory>
#include <optional>

class QComboBox;
class QLabel;
class QLineEdit;

namespace knot::app {

class Book;
class ColumnList;
class KeyCard;
class StruckView;
class TestInHand;

/// Somebody's shots on their way in: what each column was taken for, what was hit, and what to do with
/// it. Nothing is kept before that is chosen.
class ImportPage : public Page {
    Q_OBJECT

public:
    ImportPage(const TestInHand& hand, Book& book, QWidget* parent = nullptr);

    /// Takes up a file, or cells from the clipboard. False, with a sentence, where nothing of it can be
    /// shown; what was there stays.
    bool openFile(const QString& path);
    bool openText(const QString& text);
    bool hasFile() const { return m_bytes != nullptr; }
    /// What was read; nothing while something can't be understood.
    const files::ImportedTest* imported() const { return m_imported ? &*m_imported : nullptr; }
    /// Whether it was read without anything to ask.
    bool asksNothing() const;
    /// The same with the player's name, for keeping.
    files::ImportedTest forKeeping() const;
    QString name() const { return m_name; }
    /// The answers given here are remembered for files with these headings.
    void remember();

    QString heading() const override;
    QString subtitle() const override;
    void takeFocus() override;

signals:
    void readRequested();
    void layRequested();
    void sittingRequested();
    void addRequested();
    void refused(const QString& sentence);
    void changed();

protected:
    void refresh() override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void buildUi();
    QWidget* buildColumns();
    QWidget* buildStruck();
    QWidget* buildActions();
    void wire();
    bool open(const QString& name, const QString& path, std::string bytes);
    /// Reads it anew with these answers. False, with all as it was, where that was given up.
    bool readWith(const files::HeadingMap& answers, files::SecondPart split);
    void correct(const QString& heading, const QString& name);
    void showHint();
    void showActions();

    const TestInHand& m_hand;
    Book& m_book;
    QString m_name, m_path, m_fault;
    std::shared_ptr<const std::string> m_bytes;
    files::HeadingMap m_answers;
    files::SecondPart m_split = files::SecondPart::none;
    std::optional<files::ImportedTest> m_imported;
    std::vector<files::ColumnTaken> m_columns;
    ColumnList* m_list = nullptr;
    QLabel* m_count = nullptr;
    QLabel* m_rows = nullptr;
    QLabel* m_hint = nullptr;
    QLabel* m_facts = nullptr;
    StruckView* m_struck = nullptr;
    QWidget* m_labelRow = nullptr;
    QLabel* m_label = nullptr;
    QComboBox* m_second = nullptr;
    QLineEdit* m_player = nullptr;
    KeyCard* m_read = nullptr;
    KeyCard* m_lay = nullptr;
    KeyCard* m_sitting = nullptr;
    KeyCard* m_add = nullptr;
};

} // namespace knot::app
