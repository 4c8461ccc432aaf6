#pragma once

#include "app/style/glyphs.h"

#include <QPushButton>

namespace knot::app {

/// A button with a club's name on it, told apart from the others where it has no room; all of it is heard and shown on
/// pointing.
class NameButton : public QPushButton {
public:
    NameButton() { setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed); }
    void setName(const QString& name, const QStringList& all) {
        m_name = name;
        m_all = all;
        setAccessibleName(name);
        setToolTip(name.toHtmlEscaped());
        fit();
    }
    QSize minimumSizeHint() const override { return {40, QPushButton::minimumSizeHint().height()}; }
    QSize sizeHint() const override { return {120, QPushButton::sizeHint().height()}; }

protected:
    void resizeEvent(QResizeEvent* event) override {
        QPushButton::resizeEvent(event);
        fit();
    }

private:
    // A name's ampersand is no key.
    void fit() {
        constexpr int frame = 16;
        const QString shown = clubName(fontMetrics(), m_name, width() - frame, m_all);
        setText(QString(shown).replace(u'&', QStringLiteral("&&")));
    }
    QString m_name;
    QStringList m_all;
};

} // namespace knot::app
