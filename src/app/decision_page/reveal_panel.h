#pragma once

#include "app/form/panel.h"

#include <string>
#include <vector>

class QLineEdit;
class QPushButton;

namespace knot::app {

class AskBar;
class Declaring;
class Judging;
class RevealView;
class TestInHand;

/// Where the tags come off: by the ten words of a seal, or, where the clubs kept the secret, by looking at them and
/// naming the club of each tag; after that what it proves. Not there where clubs were never under tags.
class RevealPanel : public Panel {
    Q_OBJECT

public:
    RevealPanel(const TestInHand& hand, Declaring& declaring, Judging& judging);
    void refresh();
    /// Where the tags would be taken off.
    void takeFocus();

signals:
    /// The text whose hash was published, to be checked elsewhere.
    void sealedTextRequested(const QString& text);

private:
    QWidget* buildKey();
    QWidget* buildBag();
    void wire();
    void forget();
    void nameNext(std::vector<std::string> named);
    bool areNamed() const;
    void refreshTags();
    QString text() const;

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Judging& m_judging;
    RevealView* m_tags;
    QWidget* m_keyBox = nullptr;
    QLineEdit* m_key = nullptr;
    QPushButton* m_reveal = nullptr;
    QWidget* m_bagBox = nullptr;
    QPushButton* m_look = nullptr;
    QPushButton* m_named = nullptr;
    AskBar* m_ask = nullptr;
    std::vector<std::string> m_clubsNamed; ///< in the order of the tags, as far as they were named
    QLabel* m_text;
    QPushButton* m_recipe; ///< to check the seal elsewhere
};

} // namespace knot::app
