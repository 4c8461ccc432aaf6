#include "app/session/test_in_hand.h"

#include <cstdio>
#include <cstdlib>

namespace knot::app {

record::Test& TestInHand::edit() {
    if (!m_test) {
        std::fputs("knotcount: no test is in hand\n", stderr);
        std::abort();
    }
    return *m_test;
}

} // namespace knot::app
