#pragma once

#include "core/ask/answers.h"

#include <QFrame>
#include <QList>
#include <QPointer>

#include <functional>

class QLabel;
class QListWidget;

namespace knot::app {

class ChipField;

/// Where a sentence comes from, and what becomes of what is typed into it.
struct SentenceSource {
    std::function<std::vector<ask::Piece>()> pieces; ///< none: nothing is shown
    std::function<std::vector<ask::Answer>(const ask::Chip& chip)> answers;
    /// Takes what was typed, or says why not; empty where it was taken.
    std::function<QString(const ask::Chip& chip, const QString& typed)> take;
    /// Whether a chip can't be changed as things stand.
    std::function<bool(const ask::Chip& chip)> stands = [](const ask::Chip&) { return false; };
};

/// One sentence: words, and chips that are typed into. Under the chip in hand stands what it may hold; what can't be
/// taken stays in its chip with the reason under the sentence.
class SentenceView : public QWidget {
    Q_OBJECT

public:
    /// `size`: of the type; `first`: the part that the sentence begins with, from which Tab leads to the others.
    SentenceView(const char* name, SentenceSource source, int size, ask::Part first, QWidget* parent = nullptr);
    void refresh();
    /// To the first chip that holds nothing, else to the first.
    void takeFocus();
    /// To the first chip of this part, where it is shown.
    void takeFocus(ask::Part part);
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
    QList<ChipField*> inOrder() const;

    SentenceSource m_source;
    int m_size;
    std::vector<ask::Piece> m_pieces;
    QList<ChipField*> m_fields;
    QList<Word> m_words;
    QLabel* m_fault;
    QPointer<QListWidget> m_offered; ///< of the window, since it may hang out of this
    QPointer<ChipField> m_offeredTo;
};

} // namespace knot::app
