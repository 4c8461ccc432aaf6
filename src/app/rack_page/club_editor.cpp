#include "app/rack_page/club_editor.h"

#include "app/form/number_field.h"
#include "app/form/panel.h"
#include "app/form/typed.h"
#include "app/rack_page/starting_panel.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/test_in_hand.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/ask/sentence.h"
#include "core/rack/figures.h"
#include "core/record/text/number_text.h"
#include "core/record/units.h"

#include <QApplication>
#include <QCompleter>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

using record::Club;
using record::Part;

constexpr int columns = 6;

// What to take care of where a measure is about work on a club.
QString careFor(const QString& field) {
    const auto begins = [&](const char* name) { return field.startsWith(QLatin1String(name)); };
    if (begins("tipTrim") || begins("shaftStep"))
        return ClubEditor::tr("Cut graphite wet or under suction, with a mask and glasses; a cut can't be taken back.");
    if (begins("sleeve"))
        return ClubEditor::tr("Tighten the screw to its maker's torque after every change, and see that the head sits "
                              "fast. A setting turns face and lie too.");
    if (begins("bent"))
        return ClubEditor::tr("Many heads allow 2° and some none: a qualified builder knows. The rules of play where "
                              "you are decide what a club may be.");
    if (begins("clubLength") || begins("shaftLength") || begins("headLoft"))
        return ClubEditor::tr(
            "The rules of play where you are decide how long a club may be, and what else it may be.");
    return {};
}

QString figure(const std::optional<double>& value, int decimals, const QString& unit) {
    return value ? QString::fromStdString(record::fixed(*value, decimals)) + unit : QStringLiteral("–");
}

} // namespace

ClubEditor::ClubEditor(const TestInHand& hand, Declaring& declaring, Book& book, QWidget* parent)
    : QWidget(parent)
    , m_hand(hand)
    , m_declaring(declaring)
    , m_book(book) {
    buildUi();
    connect(&m_book, &Book::unitsChanged, this, &ClubEditor::showUnit);
    showUnit();
}

// What is typed is taken in the unit it was typed in.
void ClubEditor::showUnit() {
    Typed::commitAll();
    const bool isInches = m_book.units().length == record::LengthUnit::in;
    const record::Unit unit = isInches ? record::Unit::in : record::Unit::mm;
    m_lengthUnit = record::toInternal(1, unit);
    for (const Length& length : m_lengths) {
        const QString label = tr("%1, %2").arg(length.label, QString::fromUtf8(record::symbol(unit)));
        length.shown->setText(label);
        length.number.field->setAccessibleName(label);
        NumberRange range = length.range;
        range.low /= m_lengthUnit;
        range.high = std::round(range.high / m_lengthUnit);
        range.of = {record::Quantity::length, unit};
        length.number.field->setRange(range);
        length.number.field->edit()->clearFocus();
    }
    refresh();
}

void ClubEditor::buildUi() {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    m_name = new QLineEdit;
    m_nameFault = captionLabel("clubNameFault");
    column->addWidget(labelled(tr("&Name of the club"), m_name, "clubName"));
    column->addWidget(m_nameFault);
    connect(m_name, &QLineEdit::textEdited, this, &ClubEditor::checkName);
    Typed::in(m_name, [this](const QString& typed) { rename(typed); });
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(10);
    grid->setVerticalSpacing(6);
    for (int i = 0; i < columns; ++i)
        grid->setColumnStretch(i, 1);
    column->addLayout(grid);
    int row = 0;
    int at = 0;
    auto place = [&](QWidget* field, int width) {
        if (at + width > columns) {
            ++row;
            at = 0;
        }
        grid->addWidget(field, row, at, 1, width, Qt::AlignTop);
        at += width;
    };
    auto newLine = [&] {
        if (at > 0)
            ++row;
        at = 0;
    };
    auto text = [&](const QString& label, const char* name, int width, auto access) {
        auto* field = new QLineEdit;
        place(labelled(label, field, name), width);
        m_texts.push_back({field, [access](const Club& club) { return access(const_cast<Club&>(club)); }});
        Typed::in(field, [this, label, access](const QString& typed) {
            change(label, [&](Club& club) { access(club) = typed.toStdString(); });
        });
    };
    auto kept = [this](NumberField* field, const QString& label, double& unit, auto access) {
        connect(field, &NumberField::edited, this, [this, label, access, &unit](std::optional<double> value) {
            if (value)
                value = *value * unit;
            change(label, [&](Club& club) {
                auto& held = access(club);
                if constexpr (std::is_same_v<std::remove_reference_t<decltype(held)>, double>)
                    held = value.value_or(0);
                else
                    held = value;
            });
        });
        return [access](const Club& club) -> std::optional<double> { return access(const_cast<Club&>(club)); };
    };
    auto number = [&](const QString& label, const char* name, const NumberRange& range, int decimals, auto access) {
        auto* field = new NumberField(range);
        place(labelled(label, field, name), 1);
        m_numbers.push_back({field, kept(field, label, m_plain, access), decimals});
    };
    // In the unit that lengths of clubs are shown in; the record holds millimetres.
    auto length = [&](const QString& label, const char* name, const NumberRange& range, int decimals, auto access) {
        auto* field = new NumberField(range);
        QWidget* box = labelled(label, field, name);
        place(box, 1);
        m_lengths.push_back({{field, kept(field, label, m_lengthUnit, access), decimals},
                             box->findChild<QLabel*>(QLatin1String(name) + QStringLiteral("Label")),
                             label,
                             range});
    };
    const record::Wanted grams{record::Quantity::mass, record::Unit::g};
    const NumberRange mass{.low = 0, .high = 1000, .aboveLow = true, .of = grams};
    const NumberRange place_{.low = 0, .high = 1500, .aboveLow = true};
    const NumberRange angle{.low = -90, .high = 90, .of = {record::Quantity::angle, record::Unit::deg}};
    text(tr("Head"), "headName", 2, [](Club& c) -> std::string& { return c.head.name; });
    number(tr("mass, g"), "headMass", mass, 0, [](Club& c) -> std::optional<double>& { return c.head.mass; });
    number(tr("loft, °"), "headLoft", angle, 1, [](Club& c) -> std::optional<double>& { return c.head.loft; });
    number(tr("lie, °"), "headLie", angle, 1, [](Club& c) -> std::optional<double>& { return c.head.lie; });
    number(tr("volume, cm³"), "headVolume",
           {.low = 0, .high = 1000, .aboveLow = true, .of = {record::Quantity::volume, record::Unit::cm3}}, 0,
           [](Club& c) -> std::optional<double>& { return c.head.volume; });
    newLine();
    length(tr("offset"), "headOffset", {.low = -30, .high = 30}, 1,
           [](Club& c) -> std::optional<double>& { return c.head.offset; });
    number(tr("bounce, °"), "headBounce", angle, 1, [](Club& c) -> std::optional<double>& { return c.head.bounce; });
    text(tr("sole"), "headSole", 1, [](Club& c) -> std::string& { return c.head.sole; });
    text(tr("top line"), "headTopLine", 1, [](Club& c) -> std::string& { return c.head.topLine; });
    text(tr("movable weights"), "headWeights", 1, [](Club& c) -> std::string& { return c.head.weights; });
    text(tr("price"), "headPrice", 1, [](Club& c) -> std::string& { return c.head.price; });
    text(tr("Shaft"), "shaftName", 2, [](Club& c) -> std::string& { return c.shaft.name; });
    number(tr("mass, g"), "shaftMass", mass, 0, [](Club& c) -> std::optional<double>& { return c.shaft.mass; });
    length(tr("length"), "shaftLength", place_, 0, [](Club& c) -> std::optional<double>& { return c.shaft.length; });
    length(tr("balance"), "shaftBalance", place_, 0, [](Club& c) -> std::optional<double>& { return c.shaft.balance; });
    text(tr("flex"), "shaftFlex", 1, [](Club& c) -> std::string& { return c.shaft.flex; });
    newLine();
    length(tr("tip trim"), "tipTrim", {.low = 0, .high = 300}, 0,
           [](Club& c) -> std::optional<double>& { return c.shaft.tipTrim; });
    number(tr("step, clubs"), "shaftStep", {.low = -5, .high = 5}, 1,
           [](Club& c) -> std::optional<double>& { return c.shaft.step; });
    text(tr("price"), "shaftPrice", 1, [](Club& c) -> std::string& { return c.shaft.price; });
    auto* setting = new QLineEdit;
    place(labelled(tr("sleeve setting"), setting, "sleeveSetting"), 1);
    m_texts.push_back({setting, [](const Club& c) { return c.sleeve.setting; }});
    Typed::whole(setting, [this](const QString& typed) { setSleeve(typed.trimmed().toStdString()); });
    text(tr("size of the grip"), "gripSize", 1, [](Club& c) -> std::string& { return c.grip.sizeClass; });
    text(tr("price of the grip"), "gripPrice", 1, [](Club& c) -> std::string& { return c.grip.price; });
    text(tr("Grip"), "gripName", 2, [](Club& c) -> std::string& { return c.grip.name; });
    number(tr("mass, g"), "gripMass", mass, 0, [](Club& c) -> std::optional<double>& { return c.grip.mass; });
    text(tr("Material of the shaft"), "shaftMaterial", 1, [](Club& c) -> std::string& { return c.shaft.material; });
    text(tr("Size of the head"), "sizeClass", 1, [](Club& c) -> std::string& { return c.head.sizeClass; });
    text(tr("Ball"), "ball", 1, [](Club& c) -> std::string& { return c.ball; });
    newLine();
    length(tr("Club length"), "clubLength", place_, 0, [](Club& c) -> std::optional<double>& { return c.length; });
    length(tr("gripped down"), "grippedDown", {.low = 0, .high = 200}, 0,
           [](Club& c) -> double& { return c.grippedDown; });
    number(tr("lead, g"), "lead", {.low = 0, .high = 100, .of = grams}, 1, [](Club& c) -> double& { return c.lead; });
    number(tr("sleeve: loft, °"), "sleeveLoft", angle, 1, [](Club& c) -> double& { return c.sleeve.loft; });
    number(tr("face, °"), "sleeveFace", angle, 1, [](Club& c) -> double& { return c.sleeve.face; });
    number(tr("lie, °"), "sleeveLie", angle, 1, [](Club& c) -> double& { return c.sleeve.lie; });
    newLine();
    length(tr("head's centre at"), "headAt", place_, 0, [](Club& c) -> std::optional<double>& { return c.headAt; });
    length(tr("grip's centre"), "gripBalance", place_, 0,
           [](Club& c) -> std::optional<double>& { return c.grip.balance; });
    const NumberRange stiffness{.low = 0, .high = 1e5, .aboveLow = true};
    number(tr("butt stiffness"), "buttStiffness", stiffness, 0,
           [](Club& c) -> std::optional<double>& { return c.shaft.buttStiffness; });
    number(tr("tip stiffness"), "tipStiffness", stiffness, 0,
           [](Club& c) -> std::optional<double>& { return c.shaft.tipStiffness; });
    number(tr("bent: loft, °"), "bentLoft", angle, 1, [](Club& c) -> double& { return c.bentLoft; });
    number(tr("lie, °"), "bentLie", angle, 1, [](Club& c) -> double& { return c.bentLie; });
    m_figures = richLabel();
    m_figures->setObjectName(QStringLiteral("figures"));
    m_figures->setWordWrap(true);
    column->addSpacing(2);
    column->addWidget(m_figures);
    auto* care = captionLabel("partCare");
    care->hide();
    column->addWidget(care);
    connect(qApp, &QApplication::focusChanged, this, [this, care](QWidget*, QWidget* field) {
        const QString words = field != nullptr && isAncestorOf(field) ? careFor(field->objectName()) : QString();
        care->setText(words);
        care->setVisible(!words.isEmpty());
    });
}

// A setting that the table knows brings its angles.
void ClubEditor::setSleeve(const std::string& setting) {
    change(tr("sleeve setting"), [&](Club& club) {
        club.sleeve.setting = setting;
        if (const auto known = rack::sleeveOf(sleevesOf(m_book), club.head.name, setting))
            club.sleeve = *known;
    });
}

// Names of parts in the logbook complete themselves; choosing one brings what is known of it.
void ClubEditor::offerParts() {
    m_known = m_book.knownParts();
    constexpr std::array fields = {"headName", "shaftName", "gripName"};
    for (int kind = 0; kind < 3; ++kind) {
        auto* field = findChild<QLineEdit*>(QLatin1String(fields[static_cast<std::size_t>(kind)]));
        QStringList names;
        for (const Part& part : m_known)
            if (static_cast<int>(part.kind) == kind)
                names << QString::fromStdString(part.name);
        auto* completer = new QCompleter(names, field);
        completer->setCaseSensitivity(Qt::CaseInsensitive);
        if (field->completer() != nullptr)
            field->completer()->deleteLater();
        field->setCompleter(completer);
        connect(completer, qOverload<const QString&>(&QCompleter::activated), this,
                [this, kind](const QString& name) { usePart(static_cast<record::PartKind>(kind), name); });
    }
}

void ClubEditor::usePart(record::PartKind kind, const QString& name) {
    const auto part =
        std::ranges::find_if(m_known, [&](const Part& p) { return p.kind == kind && p.name == name.toStdString(); });
    if (part == m_known.end())
        return;
    const Part chosen = *part;
    change(tr("a part"), [&](Club& club) {
        (kind == record::PartKind::head    ? club.head
         : kind == record::PartKind::shaft ? club.shaft
                                           : club.grip) = chosen;
    });
}

void ClubEditor::change(const QString& what, const std::function<void(Club&)>& edit) {
    if (!m_hand.has() || m_hand.isSealed() || m_build >= m_hand.test().builds.size())
        return;
    const QString club = QString::fromStdString(m_hand.test().builds[m_build].name);
    m_declaring.change(tr("%1 of %2").arg(what, club),
                       [&](record::Declared& test) { edit(test.builds[m_build].club); });
}

// What is wrong with a name is said at once, and it is not taken.
bool ClubEditor::checkName(const QString& typed) {
    const std::string name = typed.trimmed().toStdString();
    const auto twin = m_hand.test().buildIndex(name);
    const QString fault = name.empty()               ? tr("A club needs a name.")
                          : twin && *twin != m_build ? tr("Another club has this name.")
                                                     : QString();
    m_nameFault->setText(fault);
    m_nameFault->setVisible(!fault.isEmpty());
    return fault.isEmpty();
}

void ClubEditor::rename(const QString& typed) {
    if (!m_hand.has() || m_build >= m_hand.test().builds.size() || !checkName(typed))
        return;
    const std::string name = typed.trimmed().toStdString();
    m_declaring.change(tr("the name of a club"), [&](record::Declared& test) { test.builds[m_build].name = name; });
}

void ClubEditor::setBuild(record::BuildAt build) {
    if (build != m_build) { // what is typed belongs to the club before
        Typed::commitAll();
        m_name->clearFocus();
        for (const Number& number : m_numbers)
            number.field->forget();
        for (const Length& length : m_lengths)
            length.number.field->forget();
    }
    m_build = build;
    refresh();
}

void ClubEditor::refresh() {
    if (!m_hand.has())
        return;
    const auto& clubs = ask::clubsOf(m_hand.test());
    const bool there = m_build < clubs.size();
    setEnabled(there && !m_hand.isSealed());
    const record::Build build = there ? clubs[m_build] : record::Build{};
    if (!m_name->hasFocus()) {
        m_name->setText(QString::fromStdString(build.name));
        m_nameFault->hide();
    }
    for (const Text& text : m_texts)
        if (!text.field->hasFocus())
            text.field->setText(QString::fromStdString(text.read(build.club)));
    auto show = [&](const Number& number, double unit, int finer) {
        const auto value = number.read(build.club);
        number.field->display(value && *value != 0 ? std::optional(*value / unit) : std::nullopt,
                              number.decimals + finer);
    };
    const bool isInches = m_book.units().length == record::LengthUnit::in;
    for (const Number& number : m_numbers)
        show(number, m_plain, 0);
    for (const Length& length : m_lengths)
        show(length.number, m_lengthUnit, isInches ? 2 : 0);
    const auto f = rack::figuresOf(build.club);
    QStringList words;
    for (const auto& what : f.missing)
        words << QString::fromStdString(what);
    const QString swing =
        f.swingWeight ? QString::fromStdString(rack::swingWeightText(*f.swingWeight)) : QStringLiteral("–");
    QString text =
        tr("<b>%1</b> in all · balance <b>%2</b> · swing weight <b>%3</b> · inertia <b>%4</b> · loft "
           "<b>%5</b> · lie <b>%6</b>")
            .arg(figure(f.mass, 0, tr(" g")),
                 figure(f.balance ? std::optional(*f.balance / m_lengthUnit) : std::nullopt, isInches ? 1 : 0,
                        isInches ? tr(" in") : tr(" mm")),
                 swing, figure(f.inertia, 3, tr(" kg·m²")), figure(f.loft, 1, tr("°")), figure(f.lie, 1, tr("°")));
    if (build.club == Club{})
        return m_figures->setText(
            tr("Nothing is known of its parts; a test runs without, but what differs stays unseen."));
    QString remark;
    if (!words.isEmpty())
        remark = tr("Not known: %1.").arg(words.join(QStringLiteral(", ")));
    for (const auto& assumed : f.assumed)
        remark += (remark.isEmpty() ? tr("Taken as usual: ") : QStringLiteral(", ")) + QString::fromStdString(assumed);
    m_figures->setText(text +
                       QStringLiteral("<br><span style='color:%1'>%2</span>").arg(colours().faint.name(), remark));
}

} // namespace knot::app
