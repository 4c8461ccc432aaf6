#pragma once

#include "app/form/page.h"
#include "app/report/report.h"

#include <QTimer>

#include <memory>

class QCheckBox;
class QComboBox;
class QLabel;
class QPlainTextEdit;
class QPushButton;
class QScrollArea;

namespace knot::app {

class Book;
class Curtain;
class Declaring;
class Judging;
class Paper;
class SheetsView;
class TestInHand;

/// The report as it will be on paper, sheet under sheet, and what the shop puts on it.
class ReportPage : public Page {
    Q_OBJECT

public:
    ReportPage(const TestInHand& hand, Declaring& declaring, Judging& judging, const Book& book);
    ~ReportPage() override;
    QString subtitle() const override;
    void takeFocus() override;
    /// What is shown; nothing where no shots have been read.
    const Report* report() const { return m_report.get(); }
    QPageSize::PageSizeId paper() const { return m_look.paper; }

signals:
    void saveRequested();
    void markRequested();
    void textRequested();
    /// Another number of sheets.
    void changed();

public slots:
    /// An image file's mark is the shop's from now on; an empty path is none.
    void setMark(const QString& path);

protected:
    void refresh() override;

private:
    QWidget* buildLook();
    void change();
    const TestInHand& m_hand;
    Judging& m_judging;
    const Book& m_book;
    ReportLook m_look;
    std::unique_ptr<Report> m_report;
    std::unique_ptr<Paper> m_paper;
    QTimer m_soon; ///< letters of the shop's name come one by one
    Curtain* m_curtain = nullptr;
    SheetsView* m_sheets = nullptr;
    QScrollArea* m_scroll = nullptr;
    QComboBox* m_size = nullptr;
    QCheckBox* m_appendix = nullptr;
    QPlainTextEdit* m_shop = nullptr;
    QLabel* m_markText = nullptr;
    QPushButton* m_save = nullptr;
};

} // namespace knot::app
