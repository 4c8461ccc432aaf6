#pragma once

#include "core/record/test.h"

#include <QObject>
#include <QStringList>

#include <optional>

namespace knot::app {

class BayActions;

/// What is said in the bay: of a shot before its number shows, of a club and its stint, of a moment.
class SaidActions : public QObject {
    Q_OBJECT

public:
    explicit SaidActions(BayActions& actions);

    /// Good, so-so or bad: of the last shot while its number is not seen, else of the one in the air.
    void call();
    void scoreFeel(std::size_t scale, int score);
    void wordFeel(const QString& text);
    /// Against the club before.
    void compare(record::Versus versus);
    void guess();
    /// A flag now, words later.
    void flag();
    /// Words: the reason of a set-aside, those of a flag, or a note to the test.
    void word();
    /// What the player was told or changed: from the next shot on.
    void askChange();
    /// What is expected of the club in hand, before its stint.
    void expect();

private:
    void callApart(record::ShotId shot, bool isGoodSwing);
    void askReason(record::ShotId shot);
    void askNote(const QString& question);
    void guessAtEnd(record::BuildAt build);
    QStringList clubNames() const;
    std::optional<std::size_t> flagWithoutWords() const;

    BayActions& m_at;
};

} // namespace knot::app
