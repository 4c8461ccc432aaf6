#include "files/import/forms/spreadsheet_parts.h"

#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"

#include <expat.h>
#include <zip.h>

#include <algorithm>
#include <array>
#include <cstdio>
#include <memory>

namespace knot::files::spreadsheet {
namespace {

constexpr std::uint64_t mostUnpacked = std::uint64_t{128} << 20;
constexpr std::size_t mostInCell = std::size_t{32} << 10; // as spreadsheets have it
constexpr std::size_t mostInCells = std::size_t{64} << 20;
// The parser reads an unfinished name, value or comment anew with each piece.
constexpr std::size_t longestToken = std::size_t{1} << 20;

// The name behind its prefix: "table:table-cell" → "table-cell".
std::string_view localName(std::string_view name) {
    const auto colon = name.find(':');
    return colon == std::string_view::npos ? name : name.substr(colon + 1);
}

} // namespace

Archive::Archive(const std::string& bytes, const Stretch& stretch)
    : m_stretch(stretch) {
    zip_error_t error;
    zip_error_init(&error);
    zip_source_t* source = zip_source_buffer_create(bytes.data(), bytes.size(), 0, &error);
    m_zip = source != nullptr ? zip_open_from_source(source, ZIP_RDONLY, &error) : nullptr;
    if (m_zip == nullptr && source != nullptr)
        zip_source_free(source);
    zip_error_fini(&error);
    if (m_zip == nullptr)
        throw Refused{ErrorKind::badSpreadsheet, {}, "it is damaged"};
    for (zip_int64_t i = 0; i < zip_get_num_entries(m_zip, 0); ++i) {
        zip_stat_t part;
        if (zip_stat_index(m_zip, static_cast<zip_uint64_t>(i), 0, &part) == 0 && (part.valid & ZIP_STAT_SIZE) != 0)
            m_whole += static_cast<double>(part.size);
    }
}

Archive::~Archive() {
    zip_discard(m_zip);
}

void Archive::hold(std::size_t bytes) {
    if (bytes > mostInCell)
        throw Refused{ErrorKind::badSpreadsheet, {}, "a cell holds more than 32 KiB"};
    m_held += bytes;
    if (m_held > mostInCells)
        throw Refused{ErrorKind::badSpreadsheet, {}, "its cells hold more than 64 MiB"};
}

bool Archive::has(const std::string& name) const {
    return zip_name_locate(m_zip, name.c_str(), 0) >= 0;
}

bool Archive::read(const std::string& name, const std::function<void(const char*, std::size_t, bool last)>& take) {
    const auto closing = [](zip_file_t* file) { zip_fclose(file); };
    const std::unique_ptr<zip_file_t, decltype(closing)> file(zip_fopen(m_zip, name.c_str(), 0), closing);
    if (!file && has(name))
        throw Refused{ErrorKind::badSpreadsheet, {}, "it is damaged or locked with a password"};
    if (!file)
        return false;
    std::vector<char> piece(1 << 16);
    for (;;) {
        const zip_int64_t size = zip_fread(file.get(), piece.data(), piece.size());
        if (size < 0)
            throw Refused{ErrorKind::badSpreadsheet, {}, "it is damaged"};
        m_unpacked += static_cast<std::uint64_t>(size);
        if (m_unpacked > mostUnpacked)
            throw Refused{ErrorKind::badSpreadsheet, {}, "it unpacks to more than 128 MiB"};
        if (!m_stretch.tell(std::min(1.0, static_cast<double>(m_unpacked) / m_whole)))
            throw Refused{ErrorKind::givenUp};
        take(piece.data(), static_cast<std::size_t>(size), size == 0);
        if (size == 0)
            return true;
    }
}

std::string attribute(const Attributes& attributes, const char* name) {
    const auto at = attributes.find(name);
    return at == attributes.end() ? std::string() : at->second;
}

bool Xml::read(Archive& archive, const std::string& part) {
    const std::unique_ptr<std::remove_pointer_t<XML_Parser>, decltype(&XML_ParserFree)> parser(
        XML_ParserCreate(nullptr), &XML_ParserFree);
    m_parser = parser.get();
    XML_SetUserData(m_parser, this);
    XML_SetElementHandler(m_parser, beginElement, endElement);
    XML_SetCharacterDataHandler(m_parser, characters);
    XML_SetStartDoctypeDeclHandler(
        m_parser, [](void* self, const char*, const char*, const char*, int) { static_cast<Xml*>(self)->stop(); });
    std::size_t fed = 0;
    return archive.read(part, [&](const char* data, std::size_t size, bool last) {
        fed += size;
        if (XML_Parse(m_parser, data, static_cast<int>(size), last ? 1 : 0) == XML_STATUS_ERROR && !m_refused)
            m_refused = Refused{ErrorKind::badSpreadsheet, {}, "it is damaged"};
        else if (fed >
                 longestToken + static_cast<std::size_t>(std::max<XML_Index>(XML_GetCurrentByteIndex(m_parser), 0)))
            m_refused = Refused{ErrorKind::badSpreadsheet, {}, "a value in it is longer than 1 MiB"};
        if (m_refused)
            throw Refused(*m_refused);
    });
}

void Xml::stop() {
    m_refused = Refused{ErrorKind::badSpreadsheet, {}, "it declares a document type"};
    XML_StopParser(m_parser, XML_FALSE);
}

// Nothing may be thrown through the parser.
template<typename Work> void Xml::guarded(Work work) {
    if (m_refused)
        return;
    try {
        work();
        return;
    } catch (const Refused& refused) {
        m_refused = refused;
    } catch (const std::exception&) {
        m_refused = Refused{ErrorKind::badSpreadsheet, {}, "there is not the memory for it"};
    }
    XML_StopParser(m_parser, XML_FALSE);
}

void Xml::beginElement(void* self, const char* name, const char** attributes) {
    auto* xml = static_cast<Xml*>(self);
    xml->guarded([&] {
        Attributes all;
        for (; *attributes != nullptr; attributes += 2)
            all[std::string(localName(attributes[0]))] = attributes[1];
        xml->begin(localName(name), all);
    });
}

void Xml::endElement(void* self, const char* name) {
    auto* xml = static_cast<Xml*>(self);
    xml->guarded([&] { xml->end(localName(name)); });
}

void Xml::characters(void* self, const char* data, int size) {
    auto* xml = static_cast<Xml*>(self);
    xml->guarded([&] { xml->text({data, static_cast<std::size_t>(size)}); });
}

void Filling::put(std::size_t column, const std::string& text) {
    if (record::trimmed(text).empty())
        return;
    if (column >= mostColumns)
        throw Refused{ErrorKind::tooManyColumns, sheet.name, std::to_string(column + 1), m_row + 1};
    if (column >= m_cells.size())
        m_cells.resize(column + 1);
    m_archive.hold(text.size());
    m_cells[column] = text;
}

void Filling::endRow(std::size_t row, std::size_t times) {
    for (std::size_t i = 0; i < times && !m_cells.empty(); ++i) {
        if (sheet.rows() >= mostRows)
            throw Refused{ErrorKind::tooManyRows, sheet.name};
        for (const auto& cell : m_cells) {
            m_archive.hold(i == 0 ? 0 : cell.size());
            sheet.addCell(cell);
        }
        sheet.endRow(row + i);
    }
    m_cells.clear();
    m_row = row + times - 1;
}

std::string plainNumber(const std::string& text) {
    const auto value = record::numberIn(text, record::DecimalMark::point);
    if (!value)
        return text;
    std::array<char, 40> plain{};
    (void)std::snprintf(plain.data(), plain.size(), "%.15g", *value);
    return plain.data();
}

} // namespace knot::files::spreadsheet
