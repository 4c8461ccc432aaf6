#pragma once

#include "app/form/page.h"
#include "app/import_page/incoming_files.h"

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

    /// Takes up files as one record, or cells from the clipboard. False, with a sentence, where nothing of it can be
    /// shown; what was there stays.
    bool openFiles(const QStringList& paths);
    bool openFile(const QString& path) { return openFiles({path}); }
    bool openText(const QString& text);
    bool hasFile() const { return !m_files.isEmpty(); }
    /// What was read; nothing while something can't be understood.
    const files::ImportedTest* imported() const { return m_files.imported() ? &*m_files.imported() : nullptr; }
    /// Whether it was read without anything to ask.
    bool asksNothing() const;
    /// The same with the player's name, for keeping.
    files::ImportedTest forKeeping() const;
    QString name() const { return m_files.name(); }
    /// The answers given here are remembered for files with these headings.
    void remember() { m_files.remember(); }

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
    bool open(std::vector<Incoming> files);
    /// Reads them anew. False, with all as it was, where that was given up.
    bool readWith(const IncomingFiles::How& how);
    void correct(const QString& heading, const QString& name);
    void showStruck();
    void showHint();
    void showActions();

    const TestInHand& m_hand;
    Book& m_book;
    IncomingFiles m_files;
    ColumnList* m_list = nullptr;
    QLabel* m_count = nullptr;
    QLabel* m_rows = nullptr;
    QLabel* m_hint = nullptr;
    QLabel* m_facts = nullptr;
    StruckView* m_struck = nullptr;
    QWidget* m_labelRow = nullptr;
    QLabel* m_label = nullptr;
    QComboBox* m_second = nullptr;
    QWidget* m_eachRow = nullptr;
    QComboBox* m_each = nullptr;
    QLineEdit* m_player = nullptr;
    KeyCard* m_read = nullptr;
    KeyCard* m_lay = nullptr;
    KeyCard* m_sitting = nullptr;
    KeyCard* m_add = nullptr;
};

} // namespace knot::app
