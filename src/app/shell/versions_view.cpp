#include "app/shell/versions_view.h"

#include "app/form/panel.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/words/versions.h"

#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

namespace knot::app {

VersionsView::VersionsView(QWidget* parent)
    : QDialog(parent) {
    setObjectName(QStringLiteral("versions"));
    setWindowTitle(tr("In both logbooks, and not the same"));
    setAttribute(Qt::WA_DeleteOnClose);
    m_text = richLabel();
    m_text->setObjectName(QStringLiteral("versionsText"));
    m_text->setWordWrap(true);
    m_text->setAlignment(Qt::AlignTop);
    m_text->setTextInteractionFlags(Qt::TextSelectableByMouse);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(2 * size::grid, 2 * size::grid, 2 * size::grid, 2 * size::grid);
    column->setSpacing(size::grid);
    column->addWidget(headingLabel(tr("In both logbooks, and not the same")));
    column->addWidget(
        captionLabel("versionsNote", tr("Both stand in the list now, one after the other. Delete the one that is not "
                                        "wanted there; nothing was overwritten.")));
    column->addWidget(scrolling(m_text), 1);
    auto* close = new QPushButton(tr("&Close"));
    close->setObjectName(QStringLiteral("closeVersions"));
    column->addWidget(close, 0, Qt::AlignRight);
    connect(close, &QPushButton::clicked, this, &QDialog::close);
    resize(640, 420);
}

void VersionsView::add(const record::Test& here, const record::Test& there) {
    const auto text = [](const std::string& plain) { return QString::fromStdString(plain).toHtmlEscaped(); };
    QString html = QStringLiteral("<h3>%1</h3><table width='100%' cellpadding='3'><tr style='color:%2'><td></td>"
                                  "<td width='40%'>%3</td><td width='40%'>%4</td></tr>")
                       .arg(text(here.title), colours().faint.name(), tr("here"), tr("there"));
    for (const words::VersionRow& row : words::versionRows(here, there))
        html += QStringLiteral("<tr><td style='color:%4'>%1</td><td>%2</td><td>%3</td></tr>")
                    .arg(text(row.what), text(row.here), text(row.there), colours().faint.name());
    m_text->setText(m_text->text() + html + QStringLiteral("</table>"));
}

} // namespace knot::app
