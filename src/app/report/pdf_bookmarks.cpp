#include "app/report/pdf_bookmarks.h"

#include <QRegularExpression>

#include <algorithm>
#include <optional>

namespace knot::app {
namespace {

// What of a file its update must know.
struct Parts {
    qsizetype crossReferences = 0; ///< where they stand
    int objects = 0, catalog = 0, info = 0, pageTree = 0;
    std::vector<int> pages;
    double height = 0; ///< of a page, points
};

std::optional<Parts> partsOf(const QByteArray& pdf) {
    const QString text = QString::fromLatin1(pdf); // a byte a character
    const auto found = [&](const char* pattern) {
        return QRegularExpression(QLatin1String(pattern), QRegularExpression::DotMatchesEverythingOption).match(text);
    };
    const auto end = found("trailer\\s*<<\\s*/Size (\\d+)\\s*/Info (\\d+) 0 R\\s*/Root (\\d+) 0 R\\s*>>\\s*"
                           "startxref\\s*(\\d+)\\s*%%EOF\\s*$");
    const auto catalog = found("/Type /Catalog\\s*/Pages (\\d+) 0 R");
    const auto kids = found("/Type /Pages\\s*/Kids\\s*\\[([\\s\\dR]*)\\]");
    const auto box = found("/MediaBox \\[0 0 [\\d.]+ ([\\d.]+)\\]");
    if (!end.hasMatch() || !catalog.hasMatch() || !kids.hasMatch() || !box.hasMatch())
        return std::nullopt;
    Parts parts{.crossReferences = end.captured(4).toLongLong(),
                .objects = end.captured(1).toInt(),
                .catalog = end.captured(3).toInt(),
                .info = end.captured(2).toInt(),
                .pageTree = catalog.captured(1).toInt(),
                .pages = {},
                .height = box.captured(1).toDouble()};
    static const QRegularExpression reference(QStringLiteral("(\\d+) 0 R"));
    for (auto at = reference.globalMatch(kids.captured(1)); at.hasNext();)
        parts.pages.push_back(at.next().captured(1).toInt());
    return parts;
}

// A text string of a PDF: UTF-16 with its mark, in hexadecimal.
QByteArray hexText(const QString& text) {
    QByteArray bytes("\xfe\xff");
    for (const QChar c : text) {
        bytes.append(static_cast<char>(c.unicode() >> 8));
        bytes.append(static_cast<char>(c.unicode() & 0xff));
    }
    return '<' + bytes.toHex() + '>';
}

// Objects behind a file, and where each stands.
class Update {
public:
    explicit Update(const QByteArray& pdf)
        : m_bytes(pdf) {}

    void object(int number, const QByteArray& content) {
        m_places.push_back({number, m_bytes.size()});
        m_bytes += QByteArray::number(number) + " 0 obj\n<< " + content + " >>\nendobj\n";
    }

    QByteArray end(const Parts& parts, int objects) {
        const qsizetype at = m_bytes.size();
        m_bytes += "xref\n";
        for (const auto& [number, place] : m_places)
            m_bytes +=
                QByteArray::number(number) + " 1\n" + QByteArray::number(place).rightJustified(10, '0') + " 00000 n \n";
        m_bytes += "trailer\n<< /Size " + QByteArray::number(objects) + " /Info " + QByteArray::number(parts.info) +
                   " 0 R /Root " + QByteArray::number(parts.catalog) + " 0 R /Prev " +
                   QByteArray::number(parts.crossReferences) + " >>\nstartxref\n" + QByteArray::number(at) +
                   "\n%%EOF\n";
        return m_bytes;
    }

private:
    QByteArray m_bytes;
    std::vector<std::pair<int, qsizetype>> m_places;
};

// Bookmark i is inside the nearest one before it of a lower level.
std::vector<int> parentsOf(const std::vector<Bookmark>& bookmarks) {
    std::vector<int> parents;
    for (std::size_t i = 0; i < bookmarks.size(); ++i) {
        int parent = static_cast<int>(i) - 1;
        while (parent >= 0 && bookmarks[static_cast<std::size_t>(parent)].level >= bookmarks[i].level)
            parent = parents[static_cast<std::size_t>(parent)];
        parents.push_back(parent);
    }
    return parents;
}

} // namespace

QByteArray withBookmarks(const QByteArray& pdf, const std::vector<Bookmark>& bookmarks, const QByteArray& language) {
    const auto parts = partsOf(pdf);
    const bool fits = parts && std::ranges::all_of(bookmarks, [&](const Bookmark& bookmark) {
                          return bookmark.page >= 0 && static_cast<std::size_t>(bookmark.page) < parts->pages.size();
                      });
    if (!fits || bookmarks.empty())
        return pdf;
    const int root = parts->objects;
    const auto reference = [&](int bookmark) { return QByteArray::number(root + 1 + bookmark) + " 0 R"; };
    const std::vector<int> parents = parentsOf(bookmarks);
    const int count = static_cast<int>(bookmarks.size());
    // First and last of what is inside a bookmark, or of the outermost ones.
    const auto inside = [&](int parent) {
        QByteArray text;
        int first = -1;
        int last = -1;
        int number = 0;
        for (int i = 0; i < count; ++i)
            if (parents[static_cast<std::size_t>(i)] == parent) {
                first = first < 0 ? i : first;
                last = i;
                ++number;
            }
        if (number > 0)
            text =
                " /First " + reference(first) + " /Last " + reference(last) + " /Count " + QByteArray::number(number);
        return text;
    };
    const auto neighbour = [&](int of, int step) {
        const int parent = parents[static_cast<std::size_t>(of)];
        for (int i = of + step; i >= 0 && i < count; i += step)
            if (parents[static_cast<std::size_t>(i)] == parent)
                return i;
        return -1;
    };
    Update update(pdf);
    update.object(parts->catalog, "/Type /Catalog /Pages " + QByteArray::number(parts->pageTree) + " 0 R /Outlines " +
                                      QByteArray::number(root) + " 0 R /PageMode /UseOutlines" + " /Lang (" + language +
                                      ") /ViewerPreferences << /DisplayDocTitle true >>");
    update.object(root, "/Type /Outlines" + inside(-1));
    for (int i = 0; i < count; ++i) {
        const Bookmark& bookmark = bookmarks[static_cast<std::size_t>(i)];
        const int parent = parents[static_cast<std::size_t>(i)];
        QByteArray content = "/Title " + hexText(bookmark.text) + " /Parent " +
                             (parent < 0 ? QByteArray::number(root) + " 0 R" : reference(parent)) + " /Dest [" +
                             QByteArray::number(parts->pages[static_cast<std::size_t>(bookmark.page)]) +
                             " 0 R /XYZ 0 " + QByteArray::number(parts->height * (1 - bookmark.top), 'f', 1) +
                             " null]" + inside(i);
        if (const int before = neighbour(i, -1); before >= 0)
            content += " /Prev " + reference(before);
        if (const int after = neighbour(i, 1); after >= 0)
            content += " /Next " + reference(after);
        update.object(root + 1 + i, content);
    }
    return update.end(*parts, root + 1 + count);
}

} // namespace knot::app
