#pragma once

#include "app/shell/page.h"
#include "core/rack/starting.h"

class QLabel;
class QLineEdit;
class QListWidget;
class QPlainTextEdit;
class QPushButton;

namespace knot::app {

class ClubEditor;
class NumberField;
class Panel;
class Session;

/// The clubs on test: their parts, what they add up to, and everything in which they differ besides
/// the factor. In a screening clubs come and go here, with leads instead of verdicts.
class RackPage : public Page {
    Q_OBJECT

public:
    explicit RackPage(Session& session, QWidget* parent = nullptr);
    void takeFocus() override;
    QString subtitle() const override;

signals:
    void shotsRequested();
    void testMade();

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

    Session& m_session;
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
