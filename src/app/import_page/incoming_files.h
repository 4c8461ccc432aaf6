#pragma once

#include "files/import/shot_file.h"

#include <QString>

#include <memory>
#include <optional>
#include <set>
#include <string>
#include <vector>

namespace knot::app {

class Book;

/// One of the files that come in, or cells from the clipboard: then it has no path.
struct Incoming {
    QString name, path;
    std::shared_ptr<const std::string> bytes;
};

/// Files on their way in, read as one record with the answers that were given, and what was left out of it.
class IncomingFiles {
public:
    explicit IncomingFiles(Book& book)
        : m_book(book) {}

    /// What the files are to be read with.
    struct How {
        files::HeadingMap answers;
        files::SecondPart split = files::SecondPart::none;
        std::optional<files::EachFile> each = {}; ///< else the likelier
    };

    /// Takes files up with what is remembered of their headings. Empty, or a sentence and all stays as it was.
    QString take(std::vector<Incoming> files);
    /// Reads them anew. Empty, or a sentence, where that was given up, and all stays as it was.
    QString read(const How& how);
    /// The answers given here, and those left as they stood, are remembered for files with these headings; not those
    /// that hang on the values of this one.
    void remember();

    bool isEmpty() const { return m_files.empty(); }
    std::size_t count() const { return m_files.size(); }
    QString name() const;
    const How& how() const { return m_how; }
    /// What each file is taken for, of several.
    files::EachFile each() const { return m_each; }
    /// All that was read; nothing while something can't be understood, which `fault` says.
    const std::optional<files::ImportedTest>& imported() const { return m_imported; }
    const std::vector<files::ColumnTaken>& columns() const { return m_columns; }
    QString fault() const { return m_fault; }

    /// A club with all its shots, or one shot by its place in what was read, is left out, or comes back.
    void toggleClub(const std::string& club);
    void toggleShot(std::size_t shot);
    /// The sheet or file that a shot is of, with all its shots.
    void togglePart(std::size_t shot);
    bool isLeftOut(std::size_t shot) const;
    /// With all of its sheet or file.
    bool isPartLeftOut(std::size_t shot) const { return m_partsOut.contains(m_parts[shot]); }
    std::size_t leftOut() const;
    /// Without what was left out: clubs that have no shot then are none.
    files::ImportedTest kept() const;

private:
    struct Read;
    struct Row {
        std::size_t before = 0, line = 0; ///< of a shot, which reading anew may number otherwise
        auto operator<=>(const Row&) const = default;
    };
    void accept(Read read);

    Book& m_book;
    std::vector<Incoming> m_files;
    How m_how;
    files::EachFile m_each = files::EachFile::club;
    std::optional<files::ImportedTest> m_imported;
    std::vector<files::ColumnTaken> m_columns;
    QString m_fault;
    std::set<std::string> m_ofValues; ///< headings that were asked about for their values
    std::set<std::string> m_clubsOut;
    std::vector<Row> m_rows; ///< of each shot
    std::set<Row> m_rowsOut;
    std::vector<std::size_t> m_parts; ///< of each shot: which sheet or file
    std::set<std::size_t> m_partsOut;
};

} // namespace knot::app
