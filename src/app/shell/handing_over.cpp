#include "app/shell/handing_over.h"

#include "app/decision_page/decision_page.h"
#include "app/plan_page/seal_panel.h"
#include "app/report/report_page.h"
#include "app/session/session.h"
#include "app/shell/prompter.h"
#include "app/shell/ways_out.h"
#include "core/words/headline.h"

namespace knot::app {

HandingOver::HandingOver(Session& session, Prompter& prompter, WaysOut& out, DecisionPage& decision, ReportPage& report)
    : QObject(&report)
    , m_session(session)
    , m_prompter(prompter)
    , m_out(out) {
    wire(decision);
    wire(report);
}

void HandingOver::wire(DecisionPage& page) {
    connect(&page, &DecisionPage::againRequested, this, [this] {
        if (m_session.copyDeclaration({}, Session::Follows::sameOnAnotherDay))
            emit pageRequested(PageId::plan);
    });
    connect(&page, &DecisionPage::furtherRequested, this, [this](const std::string& club) {
        if (m_session.copyDeclaration({club}, Session::Follows::further))
            emit pageRequested(PageId::rack);
    });
    connect(&page, &DecisionPage::adjustRequested, this, [this](const std::string& club) {
        if (m_session.copyToAdjust(club))
            emit pageRequested(PageId::rack);
    });
    connect(&page, &DecisionPage::sealedTextRequested, &m_out, &WaysOut::saveText);
    connect(&page, &DecisionPage::reportRequested, this, [this] { emit pageRequested(PageId::report); });
}

void HandingOver::wire(SealPanel& panel) {
    connect(&panel, &SealPanel::printRequested, &m_out, &WaysOut::printSlip);
    connect(&panel, &SealPanel::saveSlipRequested, &m_out, &WaysOut::saveSlip);
    connect(&panel, &SealPanel::saveRequested, &m_out, &WaysOut::saveText);
}

void HandingOver::wire(ReportPage& page) {
    connect(&page, &ReportPage::textRequested, &m_out, &WaysOut::copyAsText);
    connect(&page, &ReportPage::saveRequested, this, [this, &page] {
        if (const Report* report = page.report())
            m_out.saveReport(*report, page.paper());
        else if (const auto& laps = m_session.judging().withheld())
            emit m_out.complained(QString::fromStdString(words::withheldSentences(*laps)));
        else
            emit m_out.noted(tr("The shots are still being read; save it in a moment."));
    });
    connect(&page, &ReportPage::markRequested, this, [this, &page] {
        const QString path =
            m_prompter.fileToOpen(page.window(), tr("The shop's mark"), tr("Images (*.png *.jpg *.jpeg)"));
        if (!path.isEmpty())
            page.setMark(path);
    });
}

} // namespace knot::app
