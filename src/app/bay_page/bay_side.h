#pragma once

#include "app/bay_page/entry/face_view.h"
#include "app/bay_page/situation.h"
#include "app/sources/monitor_server.h"
#include "core/record/units.h"

#include <QStackedWidget>

class QLabel;
class QLineEdit;

namespace knot::app {

class BayActions;
class ConditionsForm;
class FeelView;
class HandEntry;
class LandingSketch;
class LinkForm;

/// Beside the stage: where the ball met the face and a shot typed by hand, or how a stint felt, the
/// conditions, the link, or the list of keys.
class BaySide : public QStackedWidget {
    Q_OBJECT

public:
    enum class Side { shot, feel, conditions, link, help };
    explicit BaySide(BayActions& actions, QWidget* parent = nullptr);

    void turnTo(Side side);
    Side side() const { return static_cast<Side>(currentIndex()); }
    /// Begins a shot by hand with what was typed already.
    void typeShot(const QString& typed);
    void clearShot();
    void refresh(const Situation& now, const record::DisplayUnits& units);
    void showLink(const LinkSettings& settings, const QString& status);

signals:
    void entered(const knot::record::Readings& readings);
    /// One or two figures and Enter: no shot.
    void figureTyped(int number);
    void linkChanged(const knot::app::LinkSettings& settings);
    /// The user is done here.
    void left();

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    QWidget* buildShot();
    QWidget* buildFeel();
    QWidget* buildHelp();
    void wire();
    void refreshFace(const Situation& now);
    void refreshFeel(const Situation& now);

    BayActions& m_actions;
    FaceView* m_face = nullptr;
    LandingSketch* m_landing = nullptr;
    HandEntry* m_entry = nullptr;
    FeelView* m_feel = nullptr;
    QLineEdit* m_feelWords = nullptr;
    QLabel* m_feelHeading = nullptr;
    ConditionsForm* m_conditions = nullptr;
    LinkForm* m_link = nullptr;
};

} // namespace knot::app
