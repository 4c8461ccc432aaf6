#pragma once

#include "link/conversation.h"

#include <QString>

#include <map>

namespace knot::app {

/// Who may try the pairing code: each address one wrong code a second and twenty in all, so that nobody who guesses
/// keeps another monitor out. After a hundred wrong ones from everywhere there must be another code.
class Doorkeeper {
public:
    static constexpr int mostOfOne = 20, mostOfAll = 100;

    /// `now` in ms, of any clock that never goes back.
    link::Admission admits(const QString& address, bool isRight, qint64 now);
    bool wantsAnotherCode() const { return m_wrong >= mostOfAll; }
    /// Another code: everybody may try again.
    void forget();

private:
    struct Tries {
        int wrong = 0;
        qint64 lastAt = 0;
    };
    std::map<QString, Tries> m_tries;
    int m_wrong = 0;
};

} // namespace knot::app
