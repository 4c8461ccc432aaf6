#pragma once

#include <QAbstractButton>

class QVBoxLayout;

namespace knot::app {

/// What a line says of a matter, behind its name; pressing it opens what the matter is changed with.
class LineHead : public QAbstractButton {
    Q_OBJECT

public:
    explicit LineHead(const QString& caption);
    void setSaid(const QString& said);
    QSize sizeHint() const override;
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override;

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    QString m_said;
};

/// A matter in one line that opens in place: "Bad shots  called before the number shows; hit again".
class OpenLine : public QWidget {
    Q_OBJECT

public:
    /// `caption` with its key: "&Bad shots". The line is found as `name`.
    OpenLine(const QString& caption, const char* name);
    /// What it says while it is closed, and beside its name while it is open.
    void setSaid(const QString& said) { m_head->setSaid(said); }
    /// Where what it opens goes.
    QVBoxLayout* inside() const { return m_inside; }
    bool isOpen() const { return !m_box->isHidden(); }
    void setOpen(bool isOpen);

signals:
    void opened();

private:
    void enter();

    LineHead* m_head;
    QWidget* m_box;
    QVBoxLayout* m_inside;
};

} // namespace knot::app
