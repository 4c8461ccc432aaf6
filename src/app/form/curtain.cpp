#include "app/form/curtain.h"

#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/words/headline.h"

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace knot::app {

Curtain::Curtain(QWidget* parent)
    : QWidget(parent)
    , m_text(plainLabel()) {
    m_text->setObjectName(QStringLiteral("curtain"));
    m_text->setAlignment(Qt::AlignCenter);
    m_text->setWordWrap(true);
    auto* look = new QPushButton(tr("Look now, and have it noted"));
    look->setObjectName(QStringLiteral("lookNow"));
    auto* column = new QVBoxLayout(this);
    column->addStretch(2);
    column->addWidget(m_text);
    column->addSpacing(size::grid);
    column->addWidget(look, 0, Qt::AlignCenter);
    column->addStretch(3);
    connect(look, &QPushButton::clicked, this, &Curtain::lookRequested);
    hide();
}

void Curtain::display(const std::optional<judge::Withheld>& withheld) {
    setVisible(withheld.has_value());
    if (withheld)
        m_text->setText(QString::fromStdString(words::withheldSentences(*withheld)));
}

} // namespace knot::app
