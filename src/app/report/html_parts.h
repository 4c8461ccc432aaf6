#pragma once

#include <QString>
#include <QStringList>

#include <string>

// What the report's text is made of.
namespace knot::app::html {

inline QString escaped(const std::string& text) {
    return QString::fromStdString(text).toHtmlEscaped();
}

inline QString paragraph(const QString& html) {
    return html.isEmpty() ? QString() : QStringLiteral("<p>%1</p>\n").arg(html);
}

/// As a list; nothing of nothing.
inline QString listed(const QStringList& items) {
    QString html;
    for (const QString& item : items)
        html += QStringLiteral("<li>%1</li>\n").arg(item);
    return html.isEmpty() ? QString() : QStringLiteral("<ul>\n%1</ul>\n").arg(html);
}

/// A row of a table: the first cell to the left, the others to the right.
inline QString row(const QStringList& cells, const char* tag = "td") {
    QString html = QStringLiteral("<tr>");
    for (qsizetype i = 0; i < cells.size(); ++i)
        html += QStringLiteral("<%1%2>%3</%1>")
                    .arg(QLatin1String(tag),
                         i == 0 ? QStringLiteral(" align=\"left\" width=\"26%\"") : QStringLiteral(" align=\"right\""),
                         cells[i]);
    return html + QStringLiteral("</tr>\n");
}

} // namespace knot::app::html
