#pragma once

#include "core/record/typed/amount.h"

#include <QWidget>

#include <optional>

class QLabel;
class QLineEdit;

namespace knot::app {

/// What a number may be, in the words of its refusal.
struct NumberRange {
    double low = 0, high = 1e9; ///< in the unit of the field
    bool whole = false;
    bool mayBeEmpty = true;
    bool aboveLow = false; ///< `low` itself is refused
    record::Wanted of = {};
};

/// A field for one number, in the unit of its range or in another that is typed. What is typed and can't be taken
/// stays, with the reason under it; the value before stands meanwhile.
class NumberField : public QWidget {
    Q_OBJECT

public:
    explicit NumberField(const NumberRange& range, QWidget* parent = nullptr);

    /// Shows a value unless the user is typing here, or typed something that can't be taken.
    void display(std::optional<double> value, int decimals);
    /// It is about another thing now: what was typed for the one before goes.
    void forget();
    void setRange(const NumberRange& range) { m_range = range; }
    /// A remark under the field that is not a fault.
    void setRemark(const QString& text);
    /// What is typed, in the field's unit, where it can be taken.
    std::optional<double> value() const;
    QLineEdit* edit() const { return m_edit; }
    QString fault() const;

signals:
    /// When the field is left, or a moment after the last letter.
    void edited(std::optional<double> value);

private:
    void check(const QString& text);
    void take(const QString& text);
    QString whyRefused(const QString& text, std::optional<double>& value) const;
    void say(const QString& text, bool isFault);

    NumberRange m_range;
    QLineEdit* m_edit;
    QLabel* m_below;
    QString m_remark;
    bool m_faulty = false;
};

} // namespace knot::app
