#pragma once

#include "app/shell/page.h"
#include "core/rack/starting.h"
#include "core/record/test.h"

class QLabel;
class QLineEdit;
class QListWidget;
class QPlainTextEdit;
class QPushButton;

namespace knot::app {

class BayRun;
class Book;
class ClubEditor;
class Declaring;
class NumberField;
class Panel;
class TestInHand;

/// The clubs on test: their parts, what they add up to, and everything in which they differ besides
/// the factor. In a screening clubs come and go here, with leads instead of verdicts.
class RackPage : public Page {
    Q_OBJECT

public:
    RackPage(const TestInHand& hand, Declaring& declaring, BayRun& bay, Book& book, QWidget* parent = nullptr);
    void takeFocus() override;
    QString subtitle() const override;

signals:
    void shotsRequested();
    void shotTyped(record::BuildAt build, record::Metric metric, double value);
    /// A fair test of these two clubs is wanted.
    void confirmRequested(const std::vector<std::string>& clubs);

protected:
    void refresh() override;

private:
    QWidget* buildList();
    QWidget* buildDifferences();
    QWidget* buildScreening();
    QWidget* buildStarting();
    void refreshStarting();
    void editTables();
    void buildKeys();
    void wire();
    rack::StartingTables tables();
    void refreshDifferences();
    void refreshScreening();
    void addClub(bool copy);
    void removeClub();
    void makeBaseline();
    void strikeOff();
    void confirm();

    const TestInHand& m_hand;
    Declaring& m_declaring;
    BayRun& m_bay;
    Book& m_book;
    QListWidget* m_list = nullptr;
    ClubEditor* m_editor = nullptr;
    QLabel* m_listText = nullptr;
    QLabel* m_differences = nullptr;
    QLabel* m_starting = nullptr;
    QWidget* m_tables = nullptr;
    QPlainTextEdit* m_speedTable = nullptr;
    QPlainTextEdit* m_tempoTable = nullptr;
    QLabel* m_tableFault = nullptr;
    QWidget* m_screening = nullptr;
    QLabel* m_leads = nullptr;
    NumberField* m_shot = nullptr;
    QLineEdit* m_reason = nullptr;
    QPushButton* m_confirm = nullptr;
};

} // namespace knot::app
