// Spreadsheets of OpenDocument.
#include "files/import/forms/spreadsheet_parts.h"

#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"

#include <algorithm>
#include <array>
#include <cstdio>

namespace knot::files::spreadsheet {
namespace {

std::size_t countIn(const Attributes& attributes, const char* name) {
    return std::max<std::size_t>(record::countIn(attribute(attributes, name)).value_or(1), 1);
}

class OdsReader {
public:
    explicit OdsReader(Archive& archive)
        : m_archive(archive) {}

    std::vector<Sheet> read() {
        Xml xml;
        xml.begin = [&](std::string_view name, const Attributes& a) { begin(name, a); };
        xml.end = [&](std::string_view name) { end(name); };
        xml.text = [&](std::string_view text) {
            if (m_paragraph && m_aside == 0)
                m_text += text;
        };
        if (!xml.read(m_archive, "content.xml"))
            throw Refused{ErrorKind::badSpreadsheet, {}, "it has no content"};
        return std::move(m_sheets);
    }

private:
    void begin(std::string_view name, const Attributes& a) {
        if (name == "annotation") {
            ++m_aside; // a note beside a cell is not its text
        } else if (name == "table") {
            m_filling.emplace(attribute(a, "name"), m_archive);
            m_row = 0;
        } else if (name == "table-row") {
            m_repeatRow = countIn(a, "number-rows-repeated");
            m_column = 0;
        } else if (name == "table-cell" || name == "covered-table-cell") {
            m_repeat = countIn(a, "number-columns-repeated");
            m_value = valueOf(a);
            m_text.clear();
        } else if (name == "p") {
            if (!m_text.empty() && m_aside == 0)
                m_text += ' ';
            m_paragraph = true;
        } else if (name == "s" && m_paragraph) {
            m_text += ' ';
        }
    }
    void end(std::string_view name) {
        if (name == "annotation") {
            --m_aside;
        } else if (name == "p") {
            m_paragraph = false;
        } else if (name == "table-cell" || name == "covered-table-cell") {
            endCell();
        } else if (name == "table-row" && m_filling) {
            m_filling->endRow(m_row + 1, m_repeatRow);
            m_row += m_repeatRow;
        } else if (name == "table" && m_filling) {
            if (m_sheets.size() < mostSheets)
                m_sheets.push_back(std::move(m_filling->sheet));
            m_filling.reset();
        }
    }
    void endCell() {
        const std::string text = m_value.empty() ? m_text : m_value;
        const bool blank = record::trimmed(text).empty();
        if (m_filling && !blank)
            for (std::size_t i = 0; i < std::min(m_repeat, mostColumns + 1); ++i)
                m_filling->put(m_column + i, text);
        m_column += std::min<std::size_t>(m_repeat, 1'000'000);
    }
    static std::string valueOf(const Attributes& a) {
        const std::string type = attribute(a, "value-type");
        if (type == "float" || type == "percentage" || type == "currency")
            return plainNumber(attribute(a, "value"));
        if (type == "date")
            return attribute(a, "date-value");
        if (type == "time")
            return timeOf(attribute(a, "time-value"));
        return {};
    }
    // "PT14H05M09S" → "14:05:09"
    static std::string timeOf(const std::string& duration) {
        int hours = 0;
        int minutes = 0;
        double seconds = 0;
        if (std::sscanf(duration.c_str(), "PT%dH%dM%lfS", &hours, &minutes, &seconds) < 2)
            return duration;
        std::array<char, 40> text{};
        (void)std::snprintf(text.data(), text.size(), "%02d:%02d:%02d", hours, minutes, static_cast<int>(seconds));
        return text.data();
    }

    Archive& m_archive;
    std::vector<Sheet> m_sheets;
    std::optional<Filling> m_filling;
    std::size_t m_row = 0, m_column = 0, m_repeat = 1, m_repeatRow = 1;
    std::string m_value, m_text;
    bool m_paragraph = false;
    int m_aside = 0;
};

} // namespace

std::vector<Sheet> sheetsOfOds(Archive& archive) {
    return OdsReader(archive).read();
}

} // namespace knot::files::spreadsheet
