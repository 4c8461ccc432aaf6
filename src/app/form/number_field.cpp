#include "app/form/number_field.h"

#include "app/form/typed.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"

#include <QLabel>
#include <QLineEdit>
#include <QVBoxLayout>

#include <cmath>

namespace knot::app {
namespace {

QString shortest(double value) {
    return QString::number(value, 'g', 12);
}

} // namespace

NumberField::NumberField(const NumberRange& range, QWidget* parent)
    : QWidget(parent)
    , m_range(range)
    , m_edit(new QLineEdit)
    , m_below(plainLabel()) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(1);
    m_edit->setAlignment(Qt::AlignRight);
    m_below->setFont(typeface(size::caption));
    m_below->setWordWrap(true);
    m_below->hide();
    column->addWidget(m_edit);
    column->addWidget(m_below);
    setFocusProxy(m_edit);
    connect(m_edit, &QLineEdit::textEdited, this, &NumberField::check);
    Typed::in(m_edit, [this](const QString& text) { take(text); });
    // The child carries the field's names, for tests and screen readers.
    connect(this, &QObject::objectNameChanged, m_edit,
            [this](const QString& name) { m_edit->setObjectName(name + QStringLiteral("Edit")); });
}

void NumberField::display(std::optional<double> value, int decimals) {
    m_edit->setAccessibleName(accessibleName());
    if (m_edit->hasFocus() || m_faulty)
        return;
    const double power = std::pow(10.0, decimals);
    QString text;
    if (value) {
        const bool exact =
            std::fabs(std::round(*value * power) / power - *value) < 1e-9 * std::max(1.0, std::fabs(*value));
        text = QString::number(*value, 'f', exact ? decimals : decimals + 1);
    }
    m_edit->setText(text);
}

QString NumberField::whyRefused(const QString& text, std::optional<double>& value) const {
    const QString trimmed = text.trimmed();
    if (trimmed.isEmpty())
        return m_range.mayBeEmpty ? QString() : tr("A number is needed here.");
    const auto typed = record::valueTyped(trimmed.toStdString(), m_range.of, decimalsHere());
    if (!typed)
        return QString::fromStdString(typed.error());
    const double number = record::fromInternal(*typed, m_range.of.usual);
    if (m_range.whole && number != std::floor(number))
        return tr("Only whole numbers here.");
    if (number < m_range.low || number > m_range.high || (m_range.aboveLow && number == m_range.low))
        return m_range.aboveLow ? tr("More than %1, up to %2.").arg(shortest(m_range.low), shortest(m_range.high))
                                : tr("From %1 to %2.").arg(shortest(m_range.low), shortest(m_range.high));
    value = number;
    return {};
}

std::optional<double> NumberField::value() const {
    std::optional<double> value;
    (void)whyRefused(m_edit->text(), value);
    return value;
}

void NumberField::check(const QString& text) {
    std::optional<double> value;
    const QString why = whyRefused(text, value);
    m_faulty = !why.isEmpty();
    say(m_faulty ? why : m_remark, m_faulty);
}

void NumberField::take(const QString& text) {
    std::optional<double> value;
    if (whyRefused(text, value).isEmpty())
        emit edited(value);
}

void NumberField::forget() {
    m_faulty = false;
    say(m_remark, false);
    m_edit->clear();
}

void NumberField::setRemark(const QString& text) {
    m_remark = text;
    if (!m_faulty)
        say(text, false);
}

void NumberField::say(const QString& text, bool isFault) {
    m_below->setText(text);
    m_below->setVisible(!text.isEmpty());
    QPalette palette = m_below->palette();
    palette.setColor(QPalette::WindowText, isFault ? colours().alarm : colours().faint);
    m_below->setPalette(palette);
    m_edit->setAccessibleDescription(text);
}

QString NumberField::fault() const {
    return m_faulty ? m_below->text() : QString();
}

} // namespace knot::app
