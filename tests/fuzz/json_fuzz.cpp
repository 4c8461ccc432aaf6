// Whatever stands in an exported test: no crash; what is read is written and read the same.
#include "files/test_json.h"

#include <cstdint>
#include <cstdlib>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace knot;
    const std::string text(reinterpret_cast<const char*>(data), size);
    const auto read = files::readTestJson("fuzz.json", text);
    if (!read) {
        if (files::sentence(read.error()).empty())
            std::abort();
        return 0;
    }
    const std::string written = files::testJson(read->test);
    const auto again = files::readTestJson("fuzz.json", written);
    if (!again || files::testJson(again->test) != written)
        std::abort();
    return 0;
}
