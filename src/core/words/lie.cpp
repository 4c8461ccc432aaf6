#include "core/words/lie.h"

#include "core/record/text/number_text.h"

#include <cmath>

namespace knot::words {
namespace {

using record::fixed;
using record::signedFixed;

std::string inDegrees(double value) {
    return fixed(std::fabs(value), 1) + "°";
}

std::string ofClub(const std::string& name, const judge::LieHelp& help) {
    const double off = help.delivered - help.stands;
    std::string text = name + " is delivered at " + fixed(help.delivered, 1) + "° and stands at " +
                       fixed(help.stands, 1) + "°: " + inDegrees(off) + (off < 0 ? " flatter" : " more upright");
    if (help.off)
        text += " (" + signedFixed(help.off->low, 1) + " to " + signedFixed(help.off->high, 1) + ", " +
                record::counted(help.stints, "stint") + ")";
    text += ".";
    if (!help.off)
        return text + " One stint does not settle it.";
    if (!help.bend)
        return text + " That settles no bend.";
    return text + " Bent " + inDegrees(*help.bend) + (*help.bend < 0 ? " flat" : " upright") +
           ", its sole would meet the ground level; many heads allow 2°, a qualified builder knows.";
}

std::string ofSlope(const judge::LieSlope& slope) {
    const bool isStart = slope.metric == record::Metric::launchDirection;
    const std::string size =
        isStart ? inDegrees(slope.perDegree) + (slope.perDegree < 0 ? " left" : " right")
                : fixed(std::fabs(slope.perDegree), 1) + " mm toward the " + (slope.perDegree < 0 ? "heel" : "toe");
    return std::string(isStart ? "The start direction" : "The strike") + " moves " + size +
           " for each degree more upright (" + signedFixed(slope.ci95.low, 1) + " to " +
           signedFixed(slope.ci95.high, 1) + "): " + (slope.isEstablished() ? "established" : "not established") +
           " inside stints. What bending does is another question: test it.";
}

} // namespace

std::vector<std::string> lieSentences(const judge::Case& subject, const judge::LieReading& reading) {
    std::vector<std::string> sentences;
    for (const judge::LieHelp& help : reading.clubs)
        sentences.push_back(ofClub(subject.test().builds[help.build].name, help));
    for (const judge::LieSlope& slope : reading.slopes)
        sentences.push_back(ofSlope(slope));
    return sentences;
}

} // namespace knot::words
