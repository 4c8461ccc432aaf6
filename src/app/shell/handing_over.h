#pragma once

#include "app/shell/pages.h"

#include <QObject>

namespace knot::app {

class DecisionPage;
class Prompter;
class ReportPage;
class SealPanel;
class Session;
class WaysOut;

/// What the decision, the report and the seal ask for: what follows from a decision, and what is handed over.
class HandingOver : public QObject {
    Q_OBJECT

public:
    HandingOver(Session& session, Prompter& prompter, WaysOut& out, DecisionPage& decision, ReportPage& report);
    void wire(SealPanel& panel);

signals:
    void pageRequested(PageId page);

private:
    void wire(DecisionPage& page);
    void wire(ReportPage& page);
    Session& m_session;
    Prompter& m_prompter;
    WaysOut& m_out;
};

} // namespace knot::app
