#pragma once

#include "app/picture/runs.h"
#include "core/record/test.h"

#include <QWidget>

namespace knot::app {

/// A record as it was struck: its runs as pieces of cord, each with its club's tag.
class StruckView : public QWidget {
    Q_OBJECT

public:
    explicit StruckView(QWidget* parent = nullptr);
    void setTest(const record::Test& test);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    QSize minimumSizeHint() const override { return {160, 120}; }

private:
    void layOut();
    std::vector<std::size_t> m_counts, m_builds; ///< of each run
    std::vector<std::vector<bool>> m_counted;    ///< of each run's shots
    QStringList m_names;                         ///< of the builds
    picture::RunsLayout m_layout;
};

} // namespace knot::app
