#pragma once

#include "app/form/page.h"
#include "core/record/player.h"

#include <QList>

#include <functional>
#include <string>
#include <vector>

class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;

namespace knot::app {

class Book;
class NumberField;
class UsualRows;

/// Who hits, kept once for all tests: what is known of each, what is usual with a club, and the same person
/// under two names made one. Every edit is kept as it is made.
class PlayerPage : public Page {
    Q_OBJECT

public:
    explicit PlayerPage(Book& book, QWidget* parent = nullptr);
    QString heading() const override;
    QString subtitle() const override;
    void takeFocus() override;
    /// Turns to one of them, by id; the first where it is empty.
    void show(const std::string& id);
    /// A number that is known of a player.
    struct NumberOf {
        const char* name;
        const char* label;
        std::optional<double> record::Player::*member;
        bool isSpeed;
    };
    bool canUndo() const { return !m_undo.empty(); }
    void undo();

signals:
    void complained(const QString& sentence);
    /// Another player is shown, or has another name.
    void changed();

protected:
    void refresh() override;

private:
    struct Text {
        QLineEdit* field;
        std::string record::Player::*member;
    };
    struct Number {
        NumberField* field;
        QLabel* label;
        NumberOf of;
    };
    QWidget* buildList();
    QWidget* buildAbout();
    QWidget* buildSame();
    void wire();
    void refreshAbout();
    void change(const std::function<void(record::Player&)>& edit);
    void join();
    void forget();
    const record::Player* player() const;

    Book& m_book;
    std::string m_id;
    std::vector<record::Player> m_undo; ///< players as they were
    QLineEdit* m_search = nullptr;
    QListWidget* m_list = nullptr;
    QWidget* m_about = nullptr;
    QLineEdit* m_name = nullptr;
    QComboBox* m_hand = nullptr;
    QComboBox* m_costs = nullptr;
    QList<Text> m_texts;
    QList<Number> m_numbers;
    UsualRows* m_usual = nullptr;
    QComboBox* m_same = nullptr;
    QPushButton* m_join = nullptr;
    QPushButton* m_forget = nullptr;
    QLabel* m_none = nullptr;
};

} // namespace knot::app
