// Whatever stands in a shot file: no crash; what is read is whole and survives being written.
#include "files/csv_writer.h"
#include "files/import/shot_file.h"

#include <cstdint>
#include <cstdlib>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace knot;
    const std::string text(reinterpret_cast<const char*>(data), size);
    for (const auto clubs : {files::ReadOptions::Clubs::named, files::ReadOptions::Clubs::unknown}) {
        const auto read = files::readShots("fuzz.csv", text, {.headings = {}, .clubs = clubs});
        if (!read) {
            if (files::sentence(read.error()).empty())
                std::abort();
            continue;
        }
        for (const auto& shot : read->test.shots)
            if (shot.build >= read->test.builds.size())
                std::abort();
        (void)files::shotCsv(read->test);
    }
    return 0;
}
