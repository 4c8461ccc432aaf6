#pragma once

#include <QColor>
#include <QPalette>
#include <QString>

namespace knot::app {

enum class Theme { light, dark };

/// Every colour of the program, by what it is for.
struct Colours {
    QColor ground;    ///< behind everything: paper
    QColor sheet;     ///< panels on the ground
    QColor spine;     ///< the strip of stages
    QColor line;      ///< hairlines and frames
    QColor ink;       ///< text
    QColor faint;     ///< secondary text
    QColor cord;      ///< the cord of the stages, accents
    QColor band;      ///< too small to matter
    QColor link;      ///< things that can be followed
    QColor alarm;     ///< faults
    QColor selection; ///< the row in hand
};

/// The colours in force. Changed with `applyTheme`.
const Colours& colours();
Theme theme();
void applyTheme(Theme theme);

/// While it lives colours are those of paper, whatever the window has on.
class OnPaper {
public:
    OnPaper();
    ~OnPaper();
    OnPaper(const OnPaper&) = delete;
    OnPaper& operator=(const OnPaper&) = delete;

private:
    Theme m_before;
};

/// A build's colour by its place in the test; repeats after eight, when shapes change too.
QColor tagColour(std::size_t build);

/// The spacing grid and the scale of type, in logical pixels.
namespace size {
inline constexpr int grid = 8;
inline constexpr int caption = 12, body = 13, strong = 15, sentence = 19, title = 23;
inline constexpr int spineWidth = 128;
} // namespace size

} // namespace knot::app
