// Whatever stands in a shot file, a delimited text, JSON, HTML, XML or columns set out with blanks: no crash; what is
// read is whole and survives being written, whether what is doubtful is refused or asked about.
#include "files/csv_writer.h"
#include "files/import/shot_file.h"

#include <cstdint>
#include <cstdlib>
#include <utility>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace knot;
    const std::string text(reinterpret_cast<const char*>(data), size);
    using Options = files::ReadOptions;
    for (const auto& [clubs, doubt] : {std::pair{Options::Clubs::named, Options::Doubt::refuse},
                                       {Options::Clubs::unknown, Options::Doubt::refuse},
                                       {Options::Clubs::unknown, Options::Doubt::takeLikelier}}) {
        const auto read = files::readShots("fuzz.csv", text, {.headings = {}, .clubs = clubs, .doubt = doubt});
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
