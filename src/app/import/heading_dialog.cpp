#include "app/import/heading_dialog.h"

#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/record/units.h"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

namespace knot::app {
namespace {

// Every column a shot file can have: plain ones, then metrics in each unit.
QStringList columnNames() {
    QStringList names = QStringLiteral("build shot sitting round turn player status reason delivery feel note "
                                       "taken_at handed_over set_aside_when mark")
                            .split(QLatin1Char(' '));
    for (const auto metric : record::allMetrics()) {
        const auto& info = record::info(metric);
        const auto& units = record::unitsOf(info.quantity);
        const auto own = record::suffix(units.front());
        const QString stem =
            QString::fromStdString(info.key).chopped(own.empty() ? 0 : static_cast<int>(own.size()) + 1);
        for (const auto unit : units) {
            const auto suffix = record::suffix(unit);
            names << (suffix.empty() ? stem
                                     : stem + QLatin1Char('_') +
                                           QString::fromUtf8(suffix.data(), static_cast<int>(suffix.size())));
        }
    }
    return names;
}

// The column a heading would be taken for as it stands, or nothing.
QString guess(const std::string& heading, const files::HeadingMap& known, const QStringList& names) {
    if (const auto at = known.find(heading); at != known.end())
        return QString::fromStdString(at->second);
    const QString plain = QString::fromStdString(heading).toLower().replace(QLatin1Char(' '), QLatin1Char('_'));
    return names.contains(plain) ? plain : QString();
}

} // namespace

HeadingDialog::HeadingDialog(const QString& file, const std::vector<std::string>& headings,
                             const files::HeadingMap& known, QWidget* parent)
    : QDialog(parent)
    , m_headings(headings) {
    setWindowTitle(tr("What do these headings mean?"));
    auto* intro = plainLabel(tr("%1 can't be read as it stands. Say at least which heading names the club (build) and "
                                "which holds a measurement; the rest is kept as text.")
                                 .arg(file));
    intro->setWordWrap(true);
    const QStringList names = columnNames();
    auto* rows = new QWidget;
    auto* grid = new QGridLayout(rows);
    grid->setHorizontalSpacing(3 * size::grid);
    for (std::size_t i = 0; i < headings.size(); ++i) {
        auto* choice = new QComboBox;
        choice->setObjectName(QStringLiteral("heading%1").arg(i));
        choice->setAccessibleName(QString::fromStdString(headings[i]));
        choice->addItem(tr("keep as text"), QString());
        for (const QString& name : names)
            choice->addItem(name, name);
        choice->setCurrentIndex(std::max(0, choice->findData(guess(headings[i], known, names))));
        auto* label = plainLabel(QString::fromStdString(headings[i]));
        label->setBuddy(choice);
        grid->addWidget(label, static_cast<int>(i), 0);
        grid->addWidget(choice, static_cast<int>(i), 1);
        m_choices << choice;
    }
    grid->setRowStretch(static_cast<int>(headings.size()), 1);
    auto* scroll = new QScrollArea;
    scroll->setWidget(rows);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
    buttons->button(QDialogButtonBox::Ok)->setText(tr("Import"));
    connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(20, 18, 20, 16);
    column->setSpacing(12);
    column->addWidget(intro);
    column->addWidget(scroll, 1);
    column->addWidget(buttons);
    resize(480, 460);
}

files::HeadingMap HeadingDialog::map() const {
    files::HeadingMap map;
    for (std::size_t i = 0; i < m_headings.size(); ++i)
        map[m_headings[i]] = m_choices[static_cast<qsizetype>(i)]->currentData().toString().toStdString();
    return map;
}

} // namespace knot::app
