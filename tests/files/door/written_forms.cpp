#include "files/door/written_forms.h"

#include "support/packed.h"

#include <unicode/ucnv.h>
#include <unicode/unistr.h>

#include <algorithm>
#include <map>

namespace knot::test {
namespace {

std::string joined(const std::vector<std::string>& cells, char mark) {
    std::string line;
    for (std::size_t i = 0; i < cells.size(); ++i) {
        const bool quoted = cells[i].find(mark) != std::string::npos || cells[i].find('"') != std::string::npos;
        line += (i > 0 ? std::string(1, mark) : std::string()) + (quoted ? "\"" + cells[i] + "\"" : cells[i]);
    }
    return line + "\n";
}

std::string delimited(const Grid& grid, const std::string& above, char mark) {
    std::string text = above.empty() ? "" : above + "\n";
    text += joined(grid.headings, mark);
    for (const auto& row : grid.rows)
        text += joined(row, mark);
    return text;
}

std::size_t letters(const std::string& text) {
    return static_cast<std::size_t>(icu::UnicodeString::fromUTF8(text).length());
}

std::string blanks(const Grid& grid, const std::string& above) {
    std::vector<std::size_t> widths;
    auto widen = [&](const std::vector<std::string>& row) {
        widths.resize(std::max(widths.size(), row.size()));
        for (std::size_t i = 0; i < row.size(); ++i)
            widths[i] = std::max(widths[i], letters(row[i]) + 2);
    };
    widen(grid.headings);
    for (const auto& row : grid.rows)
        widen(row);
    std::string text = above.empty() ? "" : above + "\n";
    auto put = [&](const std::vector<std::string>& row) {
        for (std::size_t i = 0; i < row.size(); ++i)
            text += row[i] + std::string(widths[i] - letters(row[i]), ' ');
        text += "\n";
    };
    put(grid.headings);
    for (const auto& row : grid.rows)
        put(row);
    return text;
}

std::string quoted(const std::string& text) {
    std::string out = "\"";
    for (const char c : text)
        out += c == '"' || c == '\\' ? std::string("\\") + c : std::string(1, c);
    return out + "\"";
}

bool isPlainNumber(const std::string& text) {
    return !text.empty() && text.find_first_not_of("-0123456789.") == std::string::npos && text != "-" &&
           std::ranges::count(text, '.') <= 1 && (text.size() < 2 || text[0] != '0' || text[1] == '.');
}

std::string json(const Grid& grid, bool byLine) {
    std::string text = byLine ? "" : "[\n";
    for (std::size_t r = 0; r < grid.rows.size(); ++r) {
        std::string object = "{";
        for (std::size_t i = 0; i < grid.rows[r].size(); ++i) {
            const std::string& cell = grid.rows[r][i];
            object += (i > 0 ? ", " : "") + quoted(grid.headings[i]) + ": " +
                      (cell.empty()          ? "null"
                       : isPlainNumber(cell) ? cell
                                             : quoted(cell));
        }
        text += object + "}" + (byLine || r + 1 == grid.rows.size() ? "\n" : ",\n");
    }
    return byLine ? text : text + "]\n";
}

std::string escaped(const std::string& text) {
    std::string out;
    for (const char c : text)
        out += c == '<' ? "&lt;" : c == '&' ? "&amp;" : std::string(1, c);
    return out;
}

std::string html(const Grid& grid, const std::string& above) {
    std::string text = "<html><head><title>Shots</title></head><body>\n<table class=t>\n";
    if (!above.empty())
        text += "<tr><td colspan=3>" + escaped(above) + "</td></tr>\n";
    auto put = [&](const std::vector<std::string>& row, const char* tag) {
        text += "<tr>";
        for (const auto& cell : row)
            text += std::string("<") + tag + ">" + escaped(cell) + "</" + tag + ">";
        text += "\n";
    };
    put(grid.headings, "th");
    for (const auto& row : grid.rows)
        put(row, "td");
    return text + "</table><p>Made&nbsp;up</body></html>\n";
}

std::string xmlWorkbook(const Grid& grid, const std::string& above) {
    std::string text = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<?mso-application progid=\"Excel.Sheet\"?>\n"
                       "<Workbook xmlns=\"urn:schemas-microsoft-com:office:spreadsheet\" "
                       "xmlns:ss=\"urn:schemas-microsoft-com:office:spreadsheet\">\n"
                       "<Worksheet ss:Name=\"Shots\"><Table>\n";
    auto put = [&](const std::vector<std::string>& row) {
        text += "<Row>";
        bool gap = false;
        for (std::size_t i = 0; i < row.size(); ++i) {
            if (row[i].empty()) {
                gap = true;
                continue;
            }
            text += gap ? "<Cell ss:Index=\"" + std::to_string(i + 1) + "\">" : "<Cell>";
            gap = false;
            text += std::string("<Data ss:Type=\"") + (isPlainNumber(row[i]) ? "Number" : "String") + "\">" +
                    escaped(row[i]) + "</Data></Cell>";
        }
        text += "</Row>\n";
    };
    if (!above.empty())
        put({above});
    put(grid.headings);
    for (const auto& row : grid.rows)
        put(row);
    return text + "</Table></Worksheet></Workbook>\n";
}

// Figures as numbers, all else as text; what is empty is not there.
std::string xlsx(const Grid& grid, const std::string& above) {
    std::string rows;
    std::size_t line = 0;
    auto put = [&](const std::vector<std::string>& row) {
        rows += "<row r=\"" + std::to_string(++line) + "\">";
        for (std::size_t i = 0; i < row.size(); ++i) {
            if (row[i].empty())
                continue;
            const std::string at = (i < 26 ? std::string() : std::string(1, static_cast<char>('A' + i / 26 - 1))) +
                                   static_cast<char>('A' + i % 26) + std::to_string(line);
            rows += "<c r=\"" + at +
                    (isPlainNumber(row[i]) ? "\"><v>" + row[i] + "</v></c>"
                                           : "\" t=\"inlineStr\"><is><t>" + escaped(row[i]) + "</t></is></c>");
        }
        rows += "</row>";
    };
    if (!above.empty())
        put({above});
    put(grid.headings);
    for (const auto& row : grid.rows)
        put(row);
    return packed({{"xl/workbook.xml", "<workbook><sheets><sheet name=\"Shots\" id=\"r1\"/></sheets></workbook>"},
                   {"xl/worksheets/sheet1.xml", "<worksheet><sheetData>" + rows + "</sheetData></worksheet>"}});
}

std::string ods(const Grid& grid, const std::string& above) {
    std::string rows;
    auto put = [&](const std::vector<std::string>& row) {
        rows += "<table:table-row>";
        for (const std::string& cell : row)
            rows += cell.empty()          ? "<table:table-cell/>"
                    : isPlainNumber(cell) ? "<table:table-cell office:value-type=\"float\" office:value=\"" + cell +
                                                "\"><text:p>" + cell + "</text:p></table:table-cell>"
                                          : "<table:table-cell office:value-type=\"string\"><text:p>" + escaped(cell) +
                                                "</text:p></table:table-cell>";
        rows += "</table:table-row>";
    };
    if (!above.empty())
        put({above});
    put(grid.headings);
    for (const auto& row : grid.rows)
        put(row);
    return packed({{"content.xml",
                    "<office:document-content xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\" "
                    "xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\" "
                    "xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\"><office:body><office:spreadsheet>"
                    "<table:table table:name=\"Shots\">" +
                        rows + "</table:table></office:spreadsheet></office:body></office:document-content>"}});
}

Grid across(const Grid& grid) {
    Grid other;
    other.headings.push_back(grid.headings.front());
    for (const auto& row : grid.rows)
        other.headings.push_back(row.empty() ? "" : row.front());
    for (std::size_t i = 1; i < grid.headings.size(); ++i) {
        std::vector<std::string> line{grid.headings[i]};
        for (const auto& row : grid.rows)
            line.push_back(i < row.size() ? row[i] : "");
        other.rows.push_back(std::move(line));
    }
    return other;
}

// A table a club; the club's name above each where it has no column.
std::vector<Grid> byClub(const Grid& grid, std::size_t clubColumn) {
    std::vector<Grid> tables;
    std::string last;
    for (const auto& row : grid.rows) {
        if (tables.empty() || row[clubColumn] != last)
            tables.push_back({grid.headings, {}});
        last = row[clubColumn];
        tables.back().rows.push_back(row);
    }
    return tables;
}

std::string besideEachOther(const Grid& grid, std::size_t clubColumn) {
    const auto tables = byClub(grid, clubColumn);
    Grid wide;
    std::size_t longest = 0;
    for (std::size_t t = 0; t < tables.size(); ++t) {
        if (t > 0)
            wide.headings.emplace_back();
        wide.headings.insert(wide.headings.end(), grid.headings.begin(), grid.headings.end());
        longest = std::max(longest, tables[t].rows.size());
    }
    for (std::size_t r = 0; r < longest; ++r) {
        std::vector<std::string> line;
        for (std::size_t t = 0; t < tables.size(); ++t) {
            if (t > 0)
                line.emplace_back();
            for (std::size_t i = 0; i < grid.headings.size(); ++i)
                line.push_back(r < tables[t].rows.size() ? tables[t].rows[r][i] : "");
        }
        wide.rows.push_back(std::move(line));
    }
    return delimited(wide, {}, ',');
}

// Each table has its columns in another order, and a title over it.
std::string otherHeadings(const Grid& grid, std::size_t clubColumn) {
    std::string text;
    std::size_t turn = 0;
    for (Grid table : byClub(grid, clubColumn)) {
        const auto by = static_cast<std::ptrdiff_t>(turn++ % table.headings.size());
        std::ranges::rotate(table.headings, table.headings.begin() + by);
        for (auto& row : table.rows)
            std::ranges::rotate(row, row.begin() + by);
        text += (text.empty() ? "" : "\n") + std::string("Table ") + std::to_string(turn) + "\n" +
                delimited(table, {}, ',');
    }
    return text;
}

std::string converted(const std::string& text, const char* to) {
    UErrorCode status = U_ZERO_ERROR;
    std::string out(text.size() * 3 + 8, '\0');
    const auto size = ucnv_convert(to, "UTF-8", out.data(), static_cast<int32_t>(out.size()), text.data(),
                                   static_cast<int32_t>(text.size()), &status);
    out.resize(static_cast<std::size_t>(size));
    return out;
}

bool has(const std::string& text, char32_t from, char32_t to) {
    const auto letters = icu::UnicodeString::fromUTF8(text);
    for (int32_t i = 0; i < letters.length(); ++i)
        if (const auto c = static_cast<char32_t>(letters.char32At(i)); c >= from && c <= to)
            return true;
    return false;
}

std::string inCodePage(const std::string& text) {
    return converted(text, has(text, 0x3040, 0x30ff)   ? "Shift_JIS"
                           : has(text, 0xac00, 0xd7a3) ? "EUC-KR"
                                                       : "windows-1252");
}

} // namespace

std::string inForm(Form form, const Grid& grid, const std::string& above, std::size_t clubColumn) {
    switch (form) {
    case Form::comma:
        return delimited(grid, above, ',');
    case Form::semicolonComma:
        return delimited(grid, above, ';');
    case Form::tabs:
        return delimited(grid, above, '\t');
    case Form::blanks:
        return blanks(grid, above);
    case Form::jsonArray:
        return json(grid, false);
    case Form::jsonLines:
        return json(grid, true);
    case Form::html:
        return html(grid, above);
    case Form::xmlWorkbook:
        return xmlWorkbook(grid, above);
    case Form::acrossTable:
        return delimited(across(grid), above, ',');
    case Form::besideEachOther:
        return besideEachOther(grid, clubColumn);
    case Form::otherHeadings:
        return otherHeadings(grid, clubColumn);
    case Form::utf16:
        return converted(delimited(grid, above, '\t'), "UTF-16LE");
    case Form::codePage:
        return inCodePage(delimited(grid, above, ','));
    case Form::xlsx:
        return xlsx(grid, above);
    case Form::ods:
        return ods(grid, above);
    }
    return {};
}

std::string suffixOf(Form form) {
    return form == Form::jsonArray || form == Form::jsonLines ? ".json"
           : form == Form::html                               ? ".html"
           : form == Form::xmlWorkbook                        ? ".xls"
           : form == Form::xlsx                               ? ".xlsx"
           : form == Form::ods                                ? ".ods"
                                                              : ".csv";
}

std::string inCapitals(const std::string& heading) {
    std::string out;
    icu::UnicodeString::fromUTF8(heading).toUpper().toUTF8String(out);
    return out;
}

} // namespace knot::test
