#pragma once

#include "app/shell/prompter.h"

#include <QObject>
#include <QPageSize>

#include <functional>

class QPainter;
class QSize;
class QWidget;

namespace knot::app {

struct Report;
class Session;

/// The ways out: the test in hand into a logbook or a file, the order slip on paper, the sealed text.
class WaysOut : public QObject {
    Q_OBJECT

public:
    WaysOut(Session& session, Prompter& prompter, QWidget* window);

    void keep();
    void exportTest();
    void printSlip(const QString& html);
    void saveSlip(const QString& html);
    /// The report of the test in hand, as PDF or HTML.
    void saveReport(const Report& report, QPageSize::PageSizeId paper);
    /// Says why there is no report, where there is none.
    void missReport();
    /// What was read, as plain text, to the clipboard.
    void copyAsText();
    void copyPicture(const QSize& size, const std::function<void(QPainter&)>& paint);
    /// The sheet of the test in hand as it reads.
    void printSheet();
    void saveText(const QString& text);
    /// A picture as SVG or PNG, as `paint` draws it in a box of this size.
    void savePicture(const QSize& size, const std::function<void(QPainter&)>& paint);

signals:
    /// What was said before is settled.
    void cleared();
    void noted(const QString& sentence);
    void complained(const QString& sentence);

private:
    Session& m_session;
    Prompter& m_prompter;
    QWidget* m_window;
};

} // namespace knot::app
