#pragma once

#include "app/picture/runs.h"
#include "files/import/shot_file.h"

#include <QWidget>

#include <optional>

namespace knot::app {

/// A record as it was struck: its runs as pieces of cord, each with its club's tag. Arrows walk along runs and shots;
/// Delete leaves the club or the shot in hand out, and brings it back;
/// Shift+Delete the sheet or file that it stands in.
class StruckView : public QWidget {
    Q_OBJECT

public:
    explicit StruckView(QWidget* parent = nullptr);
    enum class Out { no, alone, withPart }; ///< by itself or its club, or with all of its sheet or file
    /// `out`: of each shot whether it is left out; the same record keeps what is in hand.
    void setTest(const files::ImportedTest& imported, std::vector<Out> out);
    /// What is in hand and what its keys do, in a sentence or two.
    QString inHand() const;

signals:
    void clubToggled(const std::string& club);
    void shotToggled(std::size_t shot);
    void partToggled(std::size_t shot);
    /// Another thing is in hand, or it is left out, or the focus came or went.
    void inHandChanged();

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    QSize minimumSizeHint() const override { return {160, 120}; }

private:
    struct Run {
        std::size_t first = 0, count = 0, build = 0;
    };
    void layOut();
    void paintRun(QPainter& painter, const picture::PlacedRun& placed) const;
    void speak();
    bool isAllOut(const Run& run) const;

    std::vector<Run> m_runs;
    std::vector<bool> m_counted; ///< of each shot
    std::vector<Out> m_out;
    QStringList m_names; ///< of the builds
    std::vector<files::PartRead> m_parts;
    picture::RunsLayout m_layout;
    std::size_t m_run = 0;               ///< in hand
    std::optional<std::size_t> m_inHand; ///< its shot in hand; none: the club
};

} // namespace knot::app
