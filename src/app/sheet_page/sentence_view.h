#pragma once

#include "core/ask/answers.h"

#include <QFrame>
#include <QList>
#include <QPointer>

class QLabel;
class QListWidget;

namespace knot::app {

class Book;
class ChipField;
class Declaring;
class TestInHand;

/// What a test asks, as one sentence: words, and chips that are typed into. Under the chip in hand stands what it may
/// hold; what can't be taken stays in its chip with the reason under the sentence.
class SentenceView : public QWidget {
    Q_OBJECT

public:
    SentenceView(const TestInHand& hand, Declaring& declaring, Book& book, QWidget* parent = nullptr);
    void refresh();
    /// To the first chip that holds nothing, else to the first.
    void takeFocus();
    /// The sentence as it reads.
    QString text() const;

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void changeEvent(QEvent* event) override;

private:
    /// Words between chips, a piece of the sentence for each place where a line may end.
    struct Word {
        QString text;
        QPointF at;
    };
    ChipField* fieldFor(const ask::Chip& chip);
    void take(ChipField* field, const QString& typed);
    void layOut();
    void walk(const ChipField* from, int by);
    void browse(ChipField* field, int by);
    void enter(ChipField* field);
    void offer(ChipField* field);
    void closeOffer();
    ask::Known known() const;
    QList<ChipField*> inOrder() const;

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Book& m_book;
    std::vector<ask::Piece> m_pieces;
    QList<ChipField*> m_fields;
    QList<Word> m_words;
    QLabel* m_fault;
    QPointer<QListWidget> m_offered; ///< of the window, since it may hang out of this
    QPointer<ChipField> m_offeredTo;
};

} // namespace knot::app
