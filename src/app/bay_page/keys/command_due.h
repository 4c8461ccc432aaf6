#pragma once

#include "app/bay_page/keys/commands.h"

#include <QCoreApplication>

#include <vector>

/// When the commands of the bay mean something, and what those that change with it are called.
namespace knot::app {

struct BayWords {
    Q_DECLARE_TR_FUNCTIONS(Bay)
};

/// The clubs that a tag can be entered for, or nullptr.
const std::vector<record::BuildAt>* inBag(const Situation& now);
/// A swing may come at any moment.
bool isStruck(const Situation& now);
bool isWarmingUp(const Situation& now);
/// Shots came before the hand-over was confirmed.
bool unconfirmed(const Situation& now);

Due whileStruck(const Situation& now);
/// In another visit only what speaks of the stint before it.
Due unlessNewVisit(const Situation& now);
Due aboutStint(const Situation& now);
/// Whether somebody holds a club, or has held one, that can be spoken of.
Due unlessWarmingUp(const Situation& now);
Due callDue(const Situation& now);

Due nextDue(const Situation& now);
QString nextTitle(const Situation& now);
QString nextHint(const Situation& now);

} // namespace knot::app
