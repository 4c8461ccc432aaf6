#pragma once

#include <QByteArray>
#include <QString>

#include <vector>

namespace knot::app {

/// A heading that a reader of the PDF can jump to.
struct Bookmark {
    int level = 1; ///< 1 is the outermost
    QString text;
    int page = 0;   ///< from 0
    double top = 0; ///< of the page's height, from its upper edge, 0 to 1
};

/// What Qt's writer leaves out: bookmarks, the language, and that the title is shown. Put behind the file as an update
/// to it (ISO 32000-1, 7.5.6 and 12.3.3). A file that is not as Qt writes it stays as it was.
QByteArray withBookmarks(const QByteArray& pdf, const std::vector<Bookmark>& bookmarks, const QByteArray& language);

} // namespace knot::app
