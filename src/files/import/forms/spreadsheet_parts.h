#pragma once

#include "files/base/error.h"
#include "files/import/forms/sheet.h"

#include <cstdint>
#include <functional>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

struct XML_ParserStruct;
struct zip;

namespace knot::files::spreadsheet {

/// What can't go on; becomes an Error.
struct Refused {
    ErrorKind kind;
    std::string sheet = {}, found = {};
    std::size_t row = 0;
};

inline constexpr std::size_t mostSheets = 100;

/// The parts of a ZIP archive in memory, which must outlive it; all that is unpacked counts against one
/// limit of 128 MiB. Throws Refused.
class Archive {
public:
    Archive(const std::string& bytes, const Stretch& stretch);
    ~Archive();
    Archive(const Archive&) = delete;
    Archive& operator=(const Archive&) = delete;

    bool has(const std::string& name) const;
    /// Counts the text of a cell against 64 MiB for all: a shared text may stand in many.
    void hold(std::size_t bytes);
    /// Hands a part out piece by piece; false where there is no such part.
    bool read(const std::string& name, const std::function<void(const char*, std::size_t, bool last)>& take);

private:
    zip* m_zip = nullptr;
    Stretch m_stretch;
    std::uint64_t m_unpacked = 0;
    std::size_t m_held = 0;
    double m_whole = 1; ///< what all parts unpack to, as the archive says
};

using Attributes = std::map<std::string, std::string>;
/// Empty where there is none of that name (without its prefix).
std::string attribute(const Attributes& attributes, const char* name);

/// One part read as XML, names without their prefix; no document types, so no entities that grow.
/// Throws Refused, and what the handlers throw of it.
class Xml {
public:
    std::function<void(std::string_view name, const Attributes&)> begin = [](std::string_view, const Attributes&) {};
    std::function<void(std::string_view name)> end = [](std::string_view) {};
    std::function<void(std::string_view text)> text = [](std::string_view) {};

    bool read(Archive& archive, const std::string& part);

private:
    void stop();
    template<typename Work> void guarded(Work work);
    static void beginElement(void* self, const char* name, const char** attributes);
    static void endElement(void* self, const char* name);
    static void characters(void* self, const char* data, int size);

    XML_ParserStruct* m_parser = nullptr;
    std::optional<Refused> m_refused;
};

/// Fills a sheet row by row. Cells may come out of order or leave gaps; rows left out are blank.
class Filling {
public:
    Filling(std::string name, Archive& archive)
        : m_archive(archive) {
        sheet.name = std::move(name);
    }
    void put(std::size_t column, const std::string& text);
    /// A row that is not blank stands as many times as it says.
    void endRow(std::size_t row, std::size_t times = 1);
    Sheet sheet;

private:
    Archive& m_archive;
    std::vector<std::string> m_cells;
    std::size_t m_row = 0;
};

/// A number as people write it: "155.30000000000001" is 155.3.
std::string plainNumber(const std::string& text);

std::vector<Sheet> sheetsOfXlsx(Archive& archive);
std::vector<Sheet> sheetsOfOds(Archive& archive);

} // namespace knot::files::spreadsheet
