// Workbooks of Office Open XML: shared, inline and formula texts alike.
#include "files/import/forms/spreadsheet_parts.h"

#include "core/record/typed/number_in.h"
#include "files/import/cells/moment_cell.h"

#include <array>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <cstring>

namespace knot::files::spreadsheet {
namespace {

// "BC12" → 54
std::size_t columnOf(std::string_view reference) {
    std::size_t column = 0;
    for (const char c : reference) {
        if (c < 'A' || c > 'Z')
            break;
        column = std::min<std::size_t>(column * 26 + static_cast<std::size_t>(c - 'A') + 1, 1'000'000);
    }
    return column == 0 ? 0 : column - 1;
}

// Whether a number format writes a date or a time.
bool isDateFormat(int id, const std::string& code) {
    if (code.empty())
        return (id >= 14 && id <= 22) || (id >= 27 && id <= 36) || (id >= 45 && id <= 47) || (id >= 50 && id <= 58);
    bool quoted = false;
    bool bracket = false;
    for (std::size_t i = 0; i < code.size(); ++i) {
        const char c = code[i];
        if (c == '\\') {
            ++i;
        } else if (c == '"') {
            quoted = !quoted;
        } else if (!quoted && (c == '[' || c == ']')) {
            bracket = c == '[' && i + 1 < code.size() && std::strchr("hmsHMS", code[i + 1]) == nullptr;
        } else if (!quoted && !bracket && std::strchr("dmyhsDMYHS", c) != nullptr) {
            return true;
        }
    }
    return false;
}

struct Workbook {
    struct Entry {
        std::string name, relation;
    };
    std::vector<Entry> sheets;
    std::map<std::string, std::string> targets; ///< of relations
    std::vector<std::string> strings;
    std::vector<bool> isDate; ///< by cell style
    bool from1904 = false;
};

void readRelations(Archive& archive, Workbook& book) {
    Xml xml;
    xml.begin = [&](std::string_view name, const Attributes& a) {
        if (name == "Relationship")
            book.targets[attribute(a, "Id")] = attribute(a, "Target");
    };
    (void)xml.read(archive, "xl/_rels/workbook.xml.rels");
}

void readWorkbook(Archive& archive, Workbook& book) {
    Xml xml;
    xml.begin = [&](std::string_view name, const Attributes& a) {
        if (name == "sheet" && book.sheets.size() < mostSheets)
            book.sheets.push_back({attribute(a, "name"), attribute(a, "id")});
        else if (name == "workbookPr")
            book.from1904 = attribute(a, "date1904") == "1" || attribute(a, "date1904") == "true";
    };
    (void)xml.read(archive, "xl/workbook.xml");
}

void readStrings(Archive& archive, Workbook& book) {
    Xml xml;
    bool inText = false;
    int phonetic = 0;
    xml.begin = [&](std::string_view name, const Attributes&) {
        if (name == "si")
            book.strings.emplace_back();
        else if (name == "rPh")
            ++phonetic;
        inText = name == "t" && phonetic == 0;
    };
    xml.end = [&](std::string_view name) {
        phonetic -= name == "rPh" ? 1 : 0;
        inText = false;
    };
    xml.text = [&](std::string_view text) {
        if (inText && !book.strings.empty())
            book.strings.back() += text;
    };
    (void)xml.read(archive, "xl/sharedStrings.xml");
}

void readStyles(Archive& archive, Workbook& book) {
    Xml xml;
    std::map<int, std::string> formats;
    bool inCells = false;
    xml.begin = [&](std::string_view name, const Attributes& a) {
        if (name == "numFmt")
            formats[record::wholeIn(attribute(a, "numFmtId")).value_or(0)] = attribute(a, "formatCode");
        else if (name == "cellXfs")
            inCells = true;
        else if (name == "xf" && inCells) {
            const int id = record::wholeIn(attribute(a, "numFmtId")).value_or(0);
            const auto code = formats.find(id);
            book.isDate.push_back(isDateFormat(id, code == formats.end() ? std::string() : code->second));
        }
    };
    xml.end = [&](std::string_view name) { inCells = inCells && name != "cellXfs"; };
    (void)xml.read(archive, "xl/styles.xml");
}

class XlsxSheet {
public:
    XlsxSheet(const Workbook& book, std::string name, Archive& archive)
        : m_book(book)
        , m_archive(archive)
        , m_filling(std::move(name), archive) {}

    Sheet read(const std::string& part) {
        Xml xml;
        xml.begin = [&](std::string_view name, const Attributes& a) { begin(name, a); };
        xml.end = [&](std::string_view name) { end(name); };
        xml.text = [&](std::string_view text) {
            if (m_inText)
                m_text += text;
        };
        (void)xml.read(m_archive, part);
        return std::move(m_filling.sheet);
    }

private:
    void begin(std::string_view name, const Attributes& a) {
        if (name == "row") {
            const std::string number = attribute(a, "r");
            m_row = record::countIn(number).value_or(m_row + 1);
            m_column = 0;
        } else if (name == "c") {
            const std::string reference = attribute(a, "r");
            m_column = reference.empty() ? m_column : columnOf(reference);
            m_type = attribute(a, "t");
            m_style = record::countIn(attribute(a, "s")).value_or(0);
            m_text.clear();
        } else if (name == "rPh") {
            m_inText = false;
            m_phonetic = true;
        } else {
            m_inText = !m_phonetic && (name == "v" || name == "t");
        }
    }
    void end(std::string_view name) {
        m_inText = false;
        if (name == "rPh")
            m_phonetic = false;
        else if (name == "c")
            m_filling.put(m_column++, cellText());
        else if (name == "row")
            m_filling.endRow(m_row);
    }
    std::string cellText() const {
        if (m_type == "s") {
            const auto at = record::countIn(m_text);
            return at && *at < m_book.strings.size() ? m_book.strings[*at] : std::string();
        }
        if (!m_type.empty() && m_type != "n")
            return m_text;
        if (m_style < m_book.isDate.size() && m_book.isDate[m_style]) {
            const auto serial = record::numberIn(m_text, record::DecimalMark::point);
            if (std::string moment = momentOfSerial(serial.value_or(-1), m_book.from1904); !moment.empty())
                return moment;
        }
        return plainNumber(m_text);
    }

    const Workbook& m_book;
    Archive& m_archive;
    Filling m_filling;
    std::size_t m_row = 0, m_column = 0, m_style = 0;
    std::string m_type, m_text;
    bool m_inText = false, m_phonetic = false;
};

} // namespace

std::vector<Sheet> sheetsOfXlsx(Archive& archive) {
    Workbook book;
    readRelations(archive, book);
    readWorkbook(archive, book);
    readStrings(archive, book);
    readStyles(archive, book);
    std::vector<Sheet> sheets;
    for (std::size_t i = 0; i < book.sheets.size(); ++i) {
        const auto at = book.targets.find(book.sheets[i].relation);
        std::string part = at != book.targets.end() ? at->second : "worksheets/sheet" + std::to_string(i + 1) + ".xml";
        if (part.starts_with('/'))
            part.erase(0, 1);
        else
            part.insert(0, "xl/");
        sheets.push_back(XlsxSheet(book, book.sheets[i].name, archive).read(part));
    }
    return sheets;
}

} // namespace knot::files::spreadsheet
