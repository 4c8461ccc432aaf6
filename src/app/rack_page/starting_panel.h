#pragma once

#include "app/form/panel.h"
#include "core/rack/sleeves.h"
#include "core/rack/starting.h"

class QComboBox;
class QPlainTextEdit;

namespace knot::app {

class Book;
class TestInHand;

/// Where to start looking: a bracket from tables that the user can change.
class StartingPanel : public Panel {
    Q_OBJECT

public:
    StartingPanel(const TestInHand& hand, Book& book);
    void refresh();

private:
    enum class Table { wood, tempo, iron, wedge, body, sleeves };
    QWidget* buildTables();
    rack::StartingTables tables();
    QString textOf(const rack::StartingTables& tables, Table table) const;
    bool isGood(Table table, const std::string& text, std::string& reason) const;
    QString bracketText(const rack::Bracket& bySpeed, const rack::Bracket& byTempo);
    void showTable();
    void takeTable();

    const TestInHand& m_hand;
    Book& m_book;
    QLabel* m_starting;
    QWidget* m_tables = nullptr;
    QComboBox* m_which = nullptr;
    QPlainTextEdit* m_table = nullptr;
    QLabel* m_heads = nullptr;
    QLabel* m_tableFault = nullptr;
};

/// The sleeve settings that are known: the logbook's own table, else the one that ships.
std::vector<rack::SleeveRow> sleevesOf(Book& book);

} // namespace knot::app
