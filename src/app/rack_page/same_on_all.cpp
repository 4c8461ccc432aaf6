#include "app/rack_page/same_on_all.h"

#include "app/form/typed.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/test_in_hand.h"
#include "app/style/fonts.h"
#include "app/style/palette.h"
#include "core/ask/sentence.h"
#include "core/rack/club_line.h"
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"

#include <QCompleter>
#include <QLineEdit>
#include <QVBoxLayout>

#include <algorithm>

namespace knot::app {
namespace {

using record::Club;
using record::Part;
using record::PartKind;
using record::TestKind;

Part* partOf(Club& club, int what) {
    Part* parts[] = {&club.head, &club.shaft, &club.grip};
    return what < 3 ? parts[what] : nullptr;
}

// "Oakum · 50 g / 46 g": what they begin with alike is said once.
QString differing(QStringList texts) {
    const QString between = QStringLiteral(" · ");
    const QString begin = texts.front().section(between, 0, 0) + between;
    if (std::ranges::all_of(texts, [&](const QString& text) { return text.startsWith(begin); }))
        for (QString& text : texts)
            if (text != texts.front())
                text.remove(0, begin.size());
    return texts.join(QStringLiteral(" / "));
}

} // namespace

SameOnAll::SameOnAll(const TestInHand& hand, Declaring& declaring, Book& book)
    : m_hand(hand)
    , m_declaring(declaring)
    , m_book(book) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(2 * size::grid, 10, 2 * size::grid, 10);
    column->setSpacing(4);
    column->addWidget(headingLabel(tr("The same on all")));
    auto* row = new QHBoxLayout;
    row->setSpacing(2 * size::grid);
    const struct {
        What what;
        QString label;
        const char* name;
        int stretch;
        QString hint;
    } fields[] = {{What::head, tr("head"), "allHead", 7, tr("name 18° 58.5° 218 g 152 cc")},
                  {What::shaft, tr("shaft"), "allShaft", 5, tr("name 62 g graphite R")},
                  {What::grip, tr("grip"), "allGrip", 4, tr("name 50 g")},
                  {What::length, tr("length"), "allLength", 4, tr("1073 mm, 42¼ in")},
                  {What::ball, tr("ball"), "allBall", 3, tr("name")}};
    for (const auto& field : fields) {
        auto* edit = new QLineEdit;
        edit->setPlaceholderText(field.hint);
        edit->setMinimumWidth(40);
        edit->setFont(typeface(size::body, QFont::Medium));
        auto* box = labelled(field.label, edit, field.name);
        edit->setAccessibleName(tr("The same on all: %1").arg(field.label));
        row->addWidget(box, field.stretch);
        m_fields << Field{field.what, box, edit, field.hint};
        Typed::whole(edit, [this, what = field.what](const QString& typed) { take(what, typed); });
    }
    column->addLayout(row);
}

bool SameOnAll::isShown(What what) const {
    switch (m_hand.test().card.kind) {
    case TestKind::shaft:
        return what != What::shaft;
    case TestKind::head:
        return what != What::head;
    case TestKind::grip:
        return what != What::grip;
    case TestKind::length:
        return what != What::length;
    case TestKind::ball:
        return what != What::ball;
    case TestKind::wholeClubs:
        return what == What::ball;
    default:
        return true;
    }
}

// Of a head whose loft or lie is tested, what is the same is the rest.
QString SameOnAll::textOf(const Club& club, What what, TestKind kind) const {
    if (what == What::ball)
        return QString::fromStdString(club.ball);
    if (what == What::length)
        return club.length ? QString::fromStdString(rack::lengthText(*club.length, m_book.units().length)) : QString();
    Club copy = club;
    Part* part = partOf(copy, static_cast<int>(what));
    if (kind == TestKind::loft)
        part->loft.reset();
    if (kind == TestKind::lie)
        part->lie.reset();
    return QString::fromStdString(rack::partText(*part));
}

// Why what is typed can't be read, as a sentence; a length is read into `length`.
std::string SameOnAll::whyNotSaid(What what, const std::string& text, const record::Typing& typing,
                                  std::optional<double>& length) {
    if (what == What::ball || record::trimmed(text).empty())
        return {};
    if (what == What::length) {
        const auto unit = typing.units.length == record::LengthUnit::in ? record::Unit::in : record::Unit::mm;
        const auto read = record::valueTyped(text, record::Wanted{record::Quantity::length, unit}, typing.mark);
        if (read)
            length = *read;
        return read ? std::string() : read.error();
    }
    const auto said = rack::partSaid(Part{.kind = static_cast<PartKind>(what)}, text, typing);
    return said ? std::string() : said.error();
}

void SameOnAll::take(What what, const QString& typed) {
    if (!m_hand.has() || m_hand.isSealed())
        return;
    const std::string text = typed.toStdString();
    const record::Typing typing = m_book.typing();
    std::optional<double> length;
    if (const std::string why = whyNotSaid(what, text, typing, length); !why.empty())
        return m_declaring.refuse(QString::fromStdString(why));
    m_declaring.change(tr("what is the same on all"), [&](record::Declared& test) {
        for (record::Build& build : test.builds) {
            Club& club = build.club;
            if (what == What::ball) {
                club.ball = text;
            } else if (what == What::length) {
                club.length = length;
            } else {
                Part* part = partOf(club, static_cast<int>(what));
                const auto kind = part->kind;
                if (record::trimmed(text).empty())
                    *part = Part{.kind = kind};
                const auto said = rack::partSaid(Part{.kind = kind}, text, typing);
                const auto known = std::ranges::find_if(
                    m_known, [&](const Part& one) { return said && one.kind == kind && one.name == said->name; });
                if (known != m_known.end() && part->name != said->name)
                    *part = *known; // with what the logbook knows of it
                if (const auto whole = rack::partSaid(*part, text, typing))
                    *part = *whole;
            }
        }
    });
    refresh();
}

void SameOnAll::offerParts() {
    m_known = m_book.knownParts();
    for (const Field& field : m_fields) {
        if (static_cast<int>(field.what) > 2)
            continue;
        QStringList names;
        for (const Part& part : m_known)
            if (static_cast<int>(part.kind) == static_cast<int>(field.what))
                names << QString::fromStdString(part.name);
        auto* completer = new QCompleter(names, field.edit);
        completer->setCaseSensitivity(Qt::CaseInsensitive);
        if (field.edit->completer() != nullptr)
            field.edit->completer()->deleteLater();
        field.edit->setCompleter(completer);
    }
}

void SameOnAll::refresh() {
    if (!m_hand.has())
        return;
    const auto& clubs = ask::clubsOf(m_hand.test());
    const TestKind kind = m_hand.test().card.kind;
    setVisible(!clubs.empty());
    for (const Field& field : m_fields) {
        field.box->setVisible(isShown(field.what));
        field.edit->setReadOnly(m_hand.isSealed());
        QStringList texts;
        for (const record::Build& club : clubs)
            if (const QString text = textOf(club.club, field.what, kind); !texts.contains(text))
                texts << text;
        const bool isSame = texts.size() == 1;
        auto* label = findChild<QLabel*>(field.edit->objectName() + QStringLiteral("Label"));
        const QString faint = colours().faint.name();
        label->setForegroundRole(QPalette::WindowText);
        label->setStyleSheet(QStringLiteral("color:%1").arg(isSame ? faint : colours().alarm.name()));
        label->setText(label->text().section(u' ', 0, 0) + (isSame || texts.isEmpty() ? QString() : tr(" differs")));
        if (texts.size() > 1)
            field.edit->setPlaceholderText(differing(texts));
        else
            field.edit->setPlaceholderText(field.hint);
        if (!field.edit->hasFocus()) {
            field.edit->setText(isSame ? texts.front() : QString());
            field.edit->setCursorPosition(0);
        }
        field.edit->setToolTip(isSame ? QString() : texts.join(QStringLiteral("; ")).toHtmlEscaped());
    }
}

} // namespace knot::app
