#pragma once

#include "core/record/test.h"

#include <QDialog>

class QLabel;

namespace knot::app {

/// Tests that two logbooks have and that are not the same in both, side by side. Both stay; Escape leaves.
class VersionsView : public QDialog {
public:
    explicit VersionsView(QWidget* parent);
    void add(const record::Test& here, const record::Test& there);

private:
    QLabel* m_text;
};

} // namespace knot::app
