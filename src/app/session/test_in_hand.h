#pragma once

#include "core/record/test.h"

#include <QObject>

#include <optional>

namespace knot::app {

/// The one test that is in hand, or none. The parts of the session share it; pages see it as
/// it is and change it through a part.
class TestInHand : public QObject {
    Q_OBJECT

public:
    bool has() const { return m_test.has_value(); }
    /// Only while there is one: asking without it is a fault of the program and ends it.
    const record::Test& test() const { return const_cast<TestInHand*>(this)->edit(); }
    record::Test& edit();
    void put(record::Test test) { m_test = std::move(test); }
    void drop() { m_test.reset(); }

    bool isKept() const { return m_test && !m_test->id.empty(); }
    bool isSealed() const { return m_test && m_test->seal.isClosed(); }
    /// A test that was declared and has its first counted shot: changes are amendments.
    bool isFrozen() const { return m_test && !m_test->frozenHash.empty(); }

signals:
    /// Another test is in hand, or none, or its clubs have been revealed.
    void replaced();

private:
    std::optional<record::Test> m_test;
};

} // namespace knot::app
