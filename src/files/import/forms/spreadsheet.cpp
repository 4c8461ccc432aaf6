#include "files/import/forms/spreadsheet.h"

#include "files/import/forms/spreadsheet_parts.h"

namespace knot::files {

bool looksLikeSpreadsheet(std::string_view bytes) {
    return bytes.starts_with("PK\x03\x04") || bytes.starts_with("\xD0\xCF\x11\xE0");
}

Result<std::vector<Sheet>> sheetsOf(const std::string& file, const std::string& bytes, const Stretch& stretch) {
    try {
        if (bytes.starts_with("\xD0\xCF\x11\xE0"))
            throw spreadsheet::Refused{ErrorKind::badSpreadsheet, {}, "it is of an old kind or locked with a password"};
        spreadsheet::Archive archive(bytes, stretch);
        std::vector<Sheet> sheets;
        if (archive.has("xl/workbook.xml"))
            sheets = spreadsheet::sheetsOfXlsx(archive);
        else if (archive.has("content.xml"))
            sheets = spreadsheet::sheetsOfOds(archive);
        else
            throw spreadsheet::Refused{ErrorKind::badSpreadsheet, {}, "it is another kind of archive"};
        std::erase_if(sheets, [](const Sheet& sheet) { return sheet.rows() == 0; });
        if (sheets.empty())
            return tl::unexpected(Error{ErrorKind::emptyFile, file, 0, 0, {}, {}});
        return sheets;
    } catch (const spreadsheet::Refused& refused) {
        Error error{refused.kind, file, refused.row, 0, {}, refused.found};
        if (!refused.sheet.empty())
            error.file += ", sheet “" + refused.sheet + "”";
        if (refused.kind == ErrorKind::tooManyColumns)
            error.expected = std::to_string(mostColumns);
        if (refused.kind == ErrorKind::tooManyRows)
            error.expected = std::to_string(mostRows);
        return tl::unexpected(std::move(error));
    }
}

} // namespace knot::files
