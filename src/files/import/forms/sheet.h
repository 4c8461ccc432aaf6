#pragma once

#include "core/record/text/text.h"
#include "files/base/error.h"
#include "files/base/watch.h"

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

namespace knot::files {

/// The most columns and rows of a table.
inline constexpr std::size_t mostColumns = 1000;
inline constexpr std::size_t mostRows = 200'000;

/// The cells of one table as text, row by row, in one piece of memory. Lines count from 1. At most
/// 4 GiB of text.
class Sheet {
public:
    std::string name; ///< of a spreadsheet's sheet; empty for a text

    /// White space around it goes.
    void addCell(std::string_view text) {
        m_text.append(record::trimmed(text));
        m_ends.push_back(static_cast<std::uint32_t>(m_text.size()));
    }
    void endRow(std::size_t line);
    void reserve(std::size_t bytes);

    std::size_t rows() const { return m_rows.size(); }
    std::size_t columns(std::size_t row) const { return m_rows[row].end - begin(row); }
    std::size_t line(std::size_t row) const { return m_rows[row].line; }
    /// Empty beyond the last cell of the row.
    std::string_view cell(std::size_t row, std::size_t column) const;
    bool isBlank(std::size_t row) const;

private:
    struct Row {
        std::uint32_t end = 0; ///< of its cells
        std::uint32_t line = 0;
    };
    std::uint32_t begin(std::size_t row) const { return row == 0 ? 0 : m_rows[row - 1].end; }
    std::string m_text;
    std::vector<std::uint32_t> m_ends;
    std::vector<Row> m_rows;
};

/// A delimited text in UTF-8 (RFC 4180; commas, semicolons, tabs or bars, whichever gives rows of one width; any line
/// ends). Refuses NUL bytes, open quotes, lines over 1 MiB
/// and too many columns.
Result<Sheet> sheetOfText(const std::string& file, const std::string& text, const Stretch& stretch = {});

} // namespace knot::files
