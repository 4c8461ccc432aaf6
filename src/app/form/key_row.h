#pragma once

#include <QAbstractButton>
#include <QList>

class QGridLayout;

namespace knot::app {

/// A key and what it does: drawn as a key cap with words beside it, large enough for a gloved finger.
class KeyButton : public QAbstractButton {
    Q_OBJECT

public:
    explicit KeyButton(QWidget* parent = nullptr);
    void setKey(const QString& cap, const QString& title, const QString& subtitle);
    void setLoud(bool loud);
    /// What does not stand whole on the button, or nothing.
    QString cutText() const;
    QSize sizeHint() const override { return {190, 52}; }
    QSize minimumSizeHint() const override { return {120, 48}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    struct Words {
        QFont title, subtitle;
        QRectF titleRoom, subtitleRoom;
        bool hasSubtitle = false;
    };
    Words layOut() const;
    QString m_cap, m_title, m_subtitle;
    bool m_loud = false;
};

/// The keys that mean something now.
class KeyRow : public QWidget {
    Q_OBJECT

public:
    struct Entry {
        int key = 0; ///< Qt::Key
        QString cap, title, subtitle;
        bool loud = false; ///< what is to be done next
        bool operator==(const Entry&) const = default;
    };
    explicit KeyRow(QWidget* parent = nullptr);
    void setEntries(const QList<Entry>& entries);
    const QList<Entry>& entries() const { return m_entries; }

signals:
    void pressed(int key);

private:
    static constexpr int columns = 4;
    QList<Entry> m_entries;
    QList<KeyButton*> m_buttons;
    QGridLayout* m_grid;
};

} // namespace knot::app
