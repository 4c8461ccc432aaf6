#pragma once

#include "core/ask/answers.h"

#include <QWidget>

namespace knot::app {

class Book;
class Declaring;
class Judging;
class SentenceView;
class TestInHand;

/// What the verdicts rest on and can be set beside the picture, as a line of chips: the baseline, whether the shown
/// metric was declared, its worthwhile gap and wanted direction.
class SheetStrip : public QWidget {
    Q_OBJECT

public:
    SheetStrip(const TestInHand& hand, Declaring& declaring, Judging& judging, Book& book, QWidget* parent = nullptr);
    void setMetric(record::Metric metric);
    /// The next build becomes the baseline.
    void nextBaseline();
    void toggleDeclared();
    void editGap();

private:
    std::vector<ask::Piece> pieces() const;
    std::vector<ask::Answer> answers(const ask::Chip& chip) const;
    QString take(const ask::Chip& chip, const QString& typed);
    QString takeKind(const QString& typed);
    QString takeGap(const QString& typed);

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Book& m_book;
    record::Metric m_metric = record::Metric::carry;
    SentenceView* m_line = nullptr;
};

} // namespace knot::app
