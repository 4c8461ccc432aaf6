#pragma once

#include "core/record/test.h"
#include "core/record/units.h"
#include "files/import/columns.h"

#include <map>
#include <string>
#include <vector>

namespace knot::files {

/// What the second part of a label such as "Fern – blue" is, where its parts come again and again.
enum class SecondPart { none, tag, delivery, player, length };

struct ReadOptions {
    HeadingMap headings = {};
    /// A device's file knows no clubs: the column may be missing, and all shots are of one build "".
    enum class Clubs { named, unknown } clubs = Clubs::named;
    /// Where two answers are possible and nobody can be asked: refuse, or take the likelier and say so.
    enum class Doubt { refuse, takeLikelier } doubt = Doubt::refuse;
    SecondPart split = SecondPart::none;
    /// Readings that cannot be, where nobody can be asked: as they stand, or not measured, as from a monitor that
    /// writes while somebody hits.
    enum class Impossible { asWritten, leftOut } impossible = Impossible::asWritten;
    /// Who waits for it; given up, it is refused as such.
    Watch* watch = nullptr;
};

/// A sheet of several, or a file of several: its shots stand together.
struct PartRead {
    std::string name;
    std::size_t begin = 0; ///< its first shot
};

/// A test read from a shot file, with what a user should know about the reading.
struct ImportedTest {
    record::Test test;
    std::vector<std::string> notes = {};            ///< "3 summary rows were left out."
    std::vector<std::size_t> lines = {};            ///< of a shot file: where each shot stands, from 1
    std::vector<PartRead> parts = {};               ///< of a shot file; none where it is one
    std::vector<ColumnTaken> columns = {};          ///< of a shot file: what each column was taken for
    std::string separator = {};                     ///< where every label has two parts: what parts them
    std::optional<record::DisplayUnits> units = {}; ///< of a shot file: what its distances and speeds are in
};

/// Reads a shot file (docs/formats.md): a text with delimiters, or a spreadsheet (XLSX, ODS). All or
/// nothing: the first thing that can't be understood is returned as an error with its line and column.
/// The title is the file's name.
Result<ImportedTest> readShotFile(const std::string& path, const ReadOptions& options = {});

/// The same from bytes; `file` is for messages.
Result<ImportedTest> readShots(const std::string& file, const std::string& bytes, const ReadOptions& options = {});

/// What a file of several is.
enum class EachFile { club, sitting };
/// The likelier: a club where no file names more than one, and those that are named don't differ.
EachFile likelierOf(const std::vector<ImportedTest>& files);
/// Several files as one record, in the order of their times where all have them, else as given. Each is a club, called
/// by its own club or else by its title, or a sitting called by its title; notes say which file they are of.
ImportedTest together(std::vector<ImportedTest> files, EachFile each);

/// Without these shots; clubs, players and parts that have none left are gone, and clubs stand as first struck.
ImportedTest without(ImportedTest imported, const std::vector<bool>& isOut);

/// The shot files in a folder by their names' endings, sorted; none where it can't be read.
std::vector<std::string> shotFilesIn(const std::string& folder);

/// "2 columns were kept as text: Quality, Bay." Empty where none was.
std::string keptAsText(const std::vector<ColumnTaken>& columns);

/// A file that names no club is a sitting with "Club 1": there is nothing in it to compare.
void settleNamelessClub(record::Test& test);

/// What each column would be taken for, also where the rows can't be read yet.
Result<std::vector<ColumnTaken>> columnsIn(const std::string& file, const std::string& bytes,
                                           const ReadOptions& options = {});

/// "Ball Spd: ball speed, mph" and so on, a line a column, with how it is known and what is asked.
std::vector<std::string> explained(const std::vector<ColumnTaken>& columns);

} // namespace knot::files
