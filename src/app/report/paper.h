#pragma once

#include "app/report/report.h"

#include <QSize>
#include <QString>

#include <memory>
#include <vector>

class QPainter;
class QTextBlock;
class QTextDocument;

namespace knot::app {

/// A report laid out on sheets of paper, the same for the printer and for the eye. A sheet on which but a few lines
/// would stand is avoided by setting all a little smaller.
class Paper {
public:
    /// The report must outlive it.
    Paper(const Report& report, QPageSize::PageSizeId size);
    ~Paper();

    static constexpr int dotsPerInch = 150;
    /// In dots.
    QSize sheet() const { return m_sheet; }
    int sheets() const;
    /// Sheet `number`, from 0, with its left upper corner at the origin, a dot a unit.
    void paint(QPainter& painter, int number) const;

    struct Heading {
        int level = 1;
        QString text;
        int sheet = 0;
        double top = 0; ///< dots from the sheet's upper edge
    };
    std::vector<Heading> headings() const;
    /// How much of each sheet's height is used, from 0 to 1.
    std::vector<double> used() const;

private:
    void lay(double shrink);
    void keepTogether();
    int sheetOf(const QTextBlock& block) const;
    const Report& m_report;
    QSize m_sheet;
    QSize m_room; ///< between the margins
    std::unique_ptr<QTextDocument> m_document;
    std::unique_ptr<QObject> m_drawings;
};

} // namespace knot::app
