// Whatever stands in a spreadsheet, XLSX or ODS: no crash and no end without a sentence; what is read is whole. The
// first byte says which, the rest is the archive itself, or its parts, each from a byte that is in no text on.
#include "files/csv_writer.h"
#include "files/import/shot_file.h"
#include "support/packed.h"

#include <cstdint>
#include <cstdlib>

namespace {

std::string nextPart(std::string& rest) {
    const auto end = rest.find('\xFF');
    std::string part = rest.substr(0, end);
    rest = end == std::string::npos ? std::string() : rest.substr(end + 1);
    return part;
}

std::string workbookOf(std::string rest) {
    std::string sheet = nextPart(rest);
    std::string strings = nextPart(rest);
    std::string styles = nextPart(rest);
    return knot::test::packed(
        {{"xl/workbook.xml", "<workbook><sheets><sheet name=\"S\" id=\"r1\"/></sheets></workbook>"},
         {"xl/worksheets/sheet1.xml", std::move(sheet)},
         {"xl/sharedStrings.xml", std::move(strings)},
         {"xl/styles.xml", std::move(styles)}});
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace knot;
    if (size == 0)
        return 0;
    const std::string rest(reinterpret_cast<const char*>(data) + 1, size - 1);
    const bool isOds = data[0] % 3 == 1;
    const std::string bytes = data[0] % 3 == 0 ? workbookOf(rest)
                              : isOds          ? test::packed({{"content.xml", rest}})
                                               : rest;
    const auto read =
        files::readShots(isOds ? "fuzz.ods" : "fuzz.xlsx", bytes, {.doubt = files::ReadOptions::Doubt::takeLikelier});
    if (!read) {
        if (files::sentence(read.error()).empty())
            std::abort();
        return 0;
    }
    for (const auto& shot : read->test.shots)
        if (shot.build >= read->test.builds.size())
            std::abort();
    (void)files::shotCsv(read->test);
    return 0;
}
