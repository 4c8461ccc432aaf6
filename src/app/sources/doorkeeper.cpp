#include "app/sources/doorkeeper.h"

namespace knot::app {

link::Admission Doorkeeper::admits(const QString& address, bool isRight, qint64 now) {
    constexpr qint64 apart = 1000; // ms
    const auto before = m_tries.find(address);
    if (before != m_tries.end() && before->second.wrong >= mostOfOne)
        return link::Admission::no;
    if (before != m_tries.end() && now - before->second.lastAt < apart)
        return link::Admission::later;
    if (isRight) {
        m_tries.erase(address);
        return link::Admission::yes;
    }
    Tries& tries = m_tries[address];
    ++tries.wrong;
    tries.lastAt = now;
    ++m_wrong;
    return link::Admission::no;
}

void Doorkeeper::forget() {
    m_tries.clear();
    m_wrong = 0;
}

} // namespace knot::app
