#pragma once

#include "app/shell/pages.h"

#include <QObject>

namespace knot::app {

class DecisionPage;
class Prompter;
class ReportPage;
class Session;
class WaysOut;

/// What the decision and the report ask for: what follows from a decision, and what is handed over.
class HandingOver : public QObject {
    Q_OBJECT

public:
    HandingOver(Session& session, Prompter& prompter, WaysOut& out, DecisionPage& decision, ReportPage& report);

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
