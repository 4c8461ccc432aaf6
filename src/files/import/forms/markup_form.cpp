// Tables of HTML pages, and workbooks that are one XML file, by libxml2.
#include "core/record/typed/number_in.h"
#include "files/import/forms/text_forms.h"

#include <libxml/HTMLparser.h>
#include <libxml/parser.h>
#include <libxml/tree.h>

#include <cctype>
#include <functional>
#include <memory>

namespace knot::files {
namespace {

constexpr std::size_t widestSpan = 200; // cells that one cell may stand over

using Document = std::unique_ptr<xmlDoc, decltype(&xmlFreeDoc)>;

std::string_view nameOf(const xmlNode* node) {
    return node->type == XML_ELEMENT_NODE && node->name != nullptr ? reinterpret_cast<const char*>(node->name)
                                                                   : std::string_view();
}

std::string textIn(const xmlNode* node) {
    std::string text;
    for (const xmlNode* child = node->children; child != nullptr; child = child->next)
        if (child->type == XML_TEXT_NODE || child->type == XML_CDATA_SECTION_NODE)
            text += reinterpret_cast<const char*>(child->content);
        else
            text += textIn(child) + (nameOf(child) == "br" || nameOf(child) == "p" ? " " : "");
    // Lines of the source are none of the table.
    std::string plain;
    for (const char c : text)
        if (std::isspace(static_cast<unsigned char>(c)) == 0)
            plain += c;
        else if (!plain.empty() && plain.back() != ' ')
            plain += ' ';
    return plain;
}

// An attribute by its name without prefix; empty where there is none.
std::string attributeOf(const xmlNode* node, std::string_view name) {
    for (const xmlAttr* attribute = node->properties; attribute != nullptr; attribute = attribute->next)
        if (name == reinterpret_cast<const char*>(attribute->name) && attribute->children != nullptr)
            return reinterpret_cast<const char*>(attribute->children->content);
    return {};
}

std::size_t countOf(const std::string& text, std::size_t otherwise) {
    const auto count = record::countIn(text);
    return count && *count > 0 && *count <= widestSpan ? static_cast<std::size_t>(*count) : otherwise;
}

// Calls for each node of a name; not for those inside one that was met.
void each(const xmlNode* from, std::string_view name, const std::function<void(const xmlNode*)>& visit) {
    for (const xmlNode* child = from->children; child != nullptr; child = child->next)
        if (nameOf(child) == name)
            visit(child);
        else
            each(child, name, visit);
}

struct TooMuch {
    ErrorKind kind;
};

void endRow(Sheet& sheet, std::size_t cells, std::size_t line) {
    if (cells > mostColumns)
        throw TooMuch{ErrorKind::tooManyColumns};
    if (sheet.rows() >= mostRows)
        throw TooMuch{ErrorKind::tooManyRows};
    sheet.endRow(line);
}

std::vector<Sheet> tablesOfPage(const xmlNode* root) {
    std::vector<Sheet> sheets;
    each(root, "table", [&](const xmlNode* table) {
        Sheet sheet;
        each(table, "caption", [&](const xmlNode* caption) { sheet.name = textIn(caption); });
        each(table, "tr", [&](const xmlNode* row) {
            std::size_t cells = 0;
            for (const xmlNode* cell = row->children; cell != nullptr; cell = cell->next)
                if (nameOf(cell) == "td" || nameOf(cell) == "th") {
                    sheet.addCell(textIn(cell));
                    const std::size_t span = countOf(attributeOf(cell, "colspan"), 1);
                    for (std::size_t i = 1; i < span; ++i)
                        sheet.addCell("");
                    cells += span;
                }
            endRow(sheet, cells, static_cast<std::size_t>(xmlGetLineNo(row)));
        });
        if (sheet.rows() > 0)
            sheets.push_back(std::move(sheet));
    });
    return sheets;
}

std::vector<Sheet> sheetsOfWorkbook(const xmlNode* root) {
    std::vector<Sheet> sheets;
    each(root, "Worksheet", [&](const xmlNode* worksheet) {
        Sheet sheet;
        sheet.name = attributeOf(worksheet, "Name");
        each(worksheet, "Row", [&](const xmlNode* row) {
            std::size_t cells = 0;
            for (const xmlNode* cell = row->children; cell != nullptr; cell = cell->next) {
                if (nameOf(cell) != "Cell")
                    continue;
                // "Index" says where a cell stands that follows a gap.
                const std::size_t at = countOf(attributeOf(cell, "Index"), cells + 1);
                for (; cells + 1 < at; ++cells)
                    sheet.addCell("");
                std::string text;
                each(cell, "Data", [&](const xmlNode* data) {
                    text = textIn(data);
                    if (attributeOf(data, "Type") == "DateTime" && text.ends_with(".000"))
                        text.erase(text.size() - 4);
                });
                sheet.addCell(text);
                ++cells;
            }
            endRow(sheet, cells, static_cast<std::size_t>(xmlGetLineNo(row)));
        });
        if (sheet.rows() > 0)
            sheets.push_back(std::move(sheet));
    });
    return sheets;
}

} // namespace

bool looksLikeMarkup(std::string_view text) {
    const auto begin = record::trimmed(text);
    if (!begin.starts_with('<'))
        return false;
    const auto head = record::lowerCase(begin.substr(0, 4096));
    for (const std::string_view sign : {"<html", "<!doctype html", "<table", "<?xml", "<workbook", "<meta", "<body",
                                        "<div", "<tr", "<head", "<style"})
        if (head.find(sign) != std::string::npos)
            return true;
    return false;
}

Result<std::vector<Sheet>> sheetsOfMarkup(const std::string& file, const std::string& text) {
    const auto size = static_cast<int>(text.size()); // at most 32 MiB
    const bool isWorkbook = text.find("urn:schemas-microsoft-com:office:spreadsheet") != std::string::npos &&
                            text.find("Worksheet") != std::string::npos;
    constexpr int quiet = XML_PARSE_NONET | XML_PARSE_NOERROR | XML_PARSE_NOWARNING | XML_PARSE_RECOVER;
    constexpr int quietPage = HTML_PARSE_NONET | HTML_PARSE_NOERROR | HTML_PARSE_NOWARNING | HTML_PARSE_RECOVER;
    const Document document(isWorkbook ? xmlReadMemory(text.data(), size, nullptr, "UTF-8", quiet)
                                       : htmlReadMemory(text.data(), size, nullptr, "UTF-8", quietPage),
                            &xmlFreeDoc);
    const xmlNode* root = document ? xmlDocGetRootElement(document.get()) : nullptr;
    try {
        auto sheets = root == nullptr ? std::vector<Sheet>() : isWorkbook ? sheetsOfWorkbook(root) : tablesOfPage(root);
        if (sheets.empty())
            return tl::unexpected(Error{ErrorKind::noTable, file, 0, 0, {}, {}});
        return sheets;
    } catch (const TooMuch& much) {
        const std::size_t most = much.kind == ErrorKind::tooManyRows ? mostRows : mostColumns;
        return tl::unexpected(Error{much.kind, file, 0, 0, {}, std::to_string(most + 1), std::to_string(most)});
    }
}

} // namespace knot::files
