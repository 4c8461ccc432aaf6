#pragma once

#include <QPushButton>

namespace knot::app {

/// A button with a name on it, which ends in dots where it has no room; all of it is heard and shown on pointing.
class NameButton : public QPushButton {
public:
    void setName(const QString& name) {
        m_name = name;
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
        const QString shown = fontMetrics().elidedText(m_name, Qt::ElideRight, width() - frame);
        setText(QString(shown).replace(u'&', QStringLiteral("&&")));
    }
    QString m_name;
};

} // namespace knot::app
