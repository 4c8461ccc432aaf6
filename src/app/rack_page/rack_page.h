#pragma once

#include "app/form/page.h"
#include "core/record/test.h"

class QLabel;
class QLineEdit;
class QPushButton;
class QStackedWidget;

namespace knot::app {

class BayRun;
class Book;
class ClubEditor;
class ClubRows;
class Declaring;
class NumberField;
class Panel;
class SameOnAll;
class StartingPanel;
class TestInHand;

/// The clubs on test: what is the same on all, a row for each with itself to scale, and everything in which they differ
/// besides the factor. Every part of one opens below. In a screening clubs come and go here, with leads instead of
/// verdicts.
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
    void buildKeys();
    void wire();
    void refreshRows();
    void refreshDifferences();
    void refreshScreening();
    void addTyped();
    bool add(const record::Build& build);
    void copyClub();
    void vary(record::TestKind kind, const QStringList& ways);
    void takeLine(int row, const QString& line);
    void openParts(bool isOpen);
    void removeClub();
    void makeBaseline();
    void strikeOff();
    void confirm();

    const TestInHand& m_hand;
    Declaring& m_declaring;
    BayRun& m_bay;
    Book& m_book;
    SameOnAll* m_same = nullptr;
    ClubRows* m_list = nullptr;
    QLabel* m_heading = nullptr;
    QLineEdit* m_new = nullptr;
    QLabel* m_newFault = nullptr;
    QPushButton* m_parts = nullptr;
    QLabel* m_listText = nullptr;
    QStackedWidget* m_below = nullptr;
    ClubEditor* m_editor = nullptr;
    QLabel* m_differences = nullptr;
    StartingPanel* m_starting = nullptr;
    QWidget* m_screening = nullptr;
    QLabel* m_leads = nullptr;
    NumberField* m_shot = nullptr;
    QLineEdit* m_reason = nullptr;
    QPushButton* m_confirm = nullptr;
};

} // namespace knot::app
