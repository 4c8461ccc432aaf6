#include "app/sheet_page/also_asked.h"

#include "app/form/number_field.h"
#include "app/form/panel.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/test_in_hand.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/judge/along.h"
#include "core/record/number_text.h"
#include "core/record/shape_text.h"
#include "core/words/along.h"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QVBoxLayout>

#include <algorithm>
#include <array>

namespace knot::app {
namespace {

using record::Metric;
using record::Test;

// How a club is delivered, as far as it can be the player's doing.
constexpr std::array causes = {Metric::clubSpeed, Metric::strikeHigh, Metric::strikeToe,
                               Metric::attack,    Metric::path,       Metric::face};

// Chooses an entry by its data, and adds one that is no longer offered: what the sheet holds is shown.
void choose(QComboBox* box, const std::string& data) {
    const QString wanted = QString::fromStdString(data);
    if (box->findData(wanted) < 0)
        box->addItem(wanted, wanted);
    box->setCurrentIndex(box->findData(wanted));
}

} // namespace

AlsoAsked::AlsoAsked(const TestInHand& hand, Declaring& declaring, Book& book, QWidget* parent)
    : QWidget(parent)
    , m_hand(hand)
    , m_declaring(declaring)
    , m_book(book) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(buildCauses());
    column->addWidget(buildChoices());
    column->addWidget(buildShapes());
}

QWidget* AlsoAsked::buildCauses() {
    auto* box = new QWidget;
    auto* grid = new QGridLayout(box);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setVerticalSpacing(4);
    QLabel* head = captionLabel("causesHead", tr("With these taken out, beside as struck"));
    head->setWordWrap(false);
    grid->addWidget(head, 0, 0, 1, 3);
    for (std::size_t i = 0; i < causes.size(); ++i) {
        auto* cause = new QCheckBox(QString::fromStdString(record::info(causes[i]).label));
        cause->setObjectName(QStringLiteral("cause%1").arg(QString::fromStdString(record::info(causes[i]).key)));
        grid->addWidget(cause, 1 + static_cast<int>(i) / 3, static_cast<int>(i) % 3);
        m_causes << cause;
        connect(cause, &QCheckBox::clicked, this, [this, metric = causes[i]](bool on) {
            m_declaring.change(tr("the causes taken out"), [&](Test& test) {
                auto& covariates = test.card.covariates;
                std::erase(covariates, metric);
                if (on)
                    covariates.push_back(metric);
            });
            refresh(); // what was refused is not shown as done
        });
    }
    return box;
}

QWidget* AlsoAsked::buildChoices() {
    auto* box = new QWidget;
    auto* row = new QHBoxLayout(box);
    row->setContentsMargins(0, 0, 0, 0);
    m_along = choiceBox({});
    m_factor = choiceBox({});
    m_aimCarry = new NumberField({.low = 0, .high = 1e6});
    m_aimSide = new NumberField({.low = -1e6, .high = 1e6});
    m_aimSide->edit()->setPlaceholderText(tr("line"));
    row->addWidget(labelled(tr("Along"), m_along, "along"), 4);
    row->addWidget(labelled(tr("Second factor"), m_factor, "secondFactor"), 4);
    row->addWidget(labelled(tr("Aim, how far"), m_aimCarry, "aimCarry"), 3);
    row->addWidget(labelled(tr("Right of line"), m_aimSide, "aimSide"), 3);
    connect(m_along, &QComboBox::activated, this, [this] {
        m_declaring.change(tr("what the test goes along"), [&](Test& test) {
            test.card.trendColumn = m_along->currentData().toString().toStdString();
        });
    });
    connect(m_factor, &QComboBox::activated, this, [this] {
        m_declaring.change(tr("the second factor"), [&](Test& test) {
            test.card.factorColumn = m_factor->currentData().toString().toStdString();
        });
    });
    for (NumberField* field : {m_aimCarry, m_aimSide})
        connect(field, &NumberField::edited, this, &AlsoAsked::setAim);
    return box;
}

QWidget* AlsoAsked::buildShapes() {
    auto* box = new QWidget;
    auto* column = new QVBoxLayout(box);
    column->setContentsMargins(0, 0, 0, 0);
    m_shape = new QLineEdit;
    m_shape->setPlaceholderText(tr("strip 20 · circle 12 at 150 · box 20 x 12 at 150 · left 15"));
    m_shapeFault = captionLabel("groundShapeFault");
    m_shapes = richLabel(captionLabel("groundShapes"));
    m_shapes->setTextInteractionFlags(Qt::LinksAccessibleByKeyboard | Qt::LinksAccessibleByMouse);
    column->addWidget(labelled(tr("Shape on the ground"), m_shape, "groundShape"));
    column->addWidget(m_shapeFault);
    column->addWidget(m_shapes);
    m_shapeFault->hide();
    connect(m_shape, &QLineEdit::returnPressed, this, &AlsoAsked::addShape);
    connect(m_shape, &QLineEdit::textEdited, m_shapeFault, &QWidget::hide);
    connect(m_shapes, &QLabel::linkActivated, this, [this](const QString& link) {
        m_declaring.change(tr("the shapes"), [&](Test& test) {
            auto& shapes = test.card.shapes;
            const auto at = link.toUInt();
            if (at >= shapes.size())
                return;
            std::erase_if(test.card.primary, [&](const record::Outcome& outcome) {
                return outcome.kind == record::OutcomeKind::share && outcome.shape == shapes[at].name;
            });
            shapes.erase(shapes.begin() + at);
        });
    });
    return box;
}

// What was not understood stays in its field, with the reason.
void AlsoAsked::addShape() {
    auto shape = record::shapeFromText(m_shape->text().toStdString(), m_book.units());
    const auto& shapes = m_hand.test().card.shapes;
    const bool isThere = shape && std::ranges::find(shapes, shape->name, &record::Shape::name) != shapes.end();
    m_shapeFault->setText(!shape    ? QString::fromStdString(shape.error())
                          : isThere ? tr("That shape is there already.")
                                    : QString());
    m_shapeFault->setVisible(!m_shapeFault->text().isEmpty());
    if (!shape || isThere)
        return;
    m_declaring.change(tr("the shapes"), [&](Test& test) { test.card.shapes.push_back(*shape); });
    m_shape->clear();
}

void AlsoAsked::setAim() {
    const record::MetricFormat format(Metric::carry, m_book.units());
    const auto carry = m_aimCarry->value();
    if (!carry && !m_hand.test().card.aim)
        return; // a side alone is no aim yet; it waits in its field
    const double side = m_aimSide->value().value_or(0);
    m_declaring.change(tr("the aim"), [&](Test& test) {
        test.card.aim =
            carry ? std::optional(record::Aim{format.internal(*carry), format.internal(side)}) : std::nullopt;
    });
}

void AlsoAsked::refresh() {
    if (!m_hand.has())
        return;
    const Test& test = m_hand.test();
    for (std::size_t i = 0; i < causes.size(); ++i)
        m_causes[static_cast<qsizetype>(i)]->setChecked(std::ranges::find(test.card.covariates, causes[i]) !=
                                                        test.card.covariates.end());
    m_along->clear();
    m_along->addItem(tr("nothing"), QString());
    for (const std::string& name : judge::alongWhat(test))
        m_along->addItem(QString::fromStdString(words::alongOf(name).what), QString::fromStdString(name));
    choose(m_along, test.card.trendColumn);
    m_factor->clear();
    m_factor->addItem(tr("none"), QString());
    m_factor->addItem(tr("delivery"), QStringLiteral("delivery"));
    m_factor->addItem(tr("player"), QStringLiteral("player"));
    for (const std::string& column : test.extraColumns)
        m_factor->addItem(QString::fromStdString(column), QString::fromStdString(column));
    choose(m_factor, test.card.factorColumn);
    const record::MetricFormat format(Metric::carry, m_book.units());
    const auto& aim = test.card.aim;
    m_aimCarry->display(aim ? std::optional(format.shown(aim->carry)) : std::nullopt, 0);
    m_aimSide->display(aim && aim->side != 0 ? std::optional(format.shown(aim->side)) : std::nullopt, 0);
    refreshShapes();
}

void AlsoAsked::refreshShapes() {
    QString html;
    const auto& shapes = m_hand.test().card.shapes;
    for (std::size_t i = 0; i < shapes.size(); ++i)
        html += tr("%1 <a href='%2' style='color:%3'>take back</a><br>")
                    .arg(QString::fromStdString(shapes[i].name).toHtmlEscaped())
                    .arg(i)
                    .arg(colours().link.name());
    m_shapes->setText(html);
    m_shapes->setVisible(!html.isEmpty());
}

} // namespace knot::app
