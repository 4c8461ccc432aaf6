#include "app/form/typed.h"

#include <QEvent>
#include <QLineEdit>
#include <QLocale>
#include <QPlainTextEdit>

#include <vector>

namespace knot::app {

record::DecimalMark decimalsHere() {
    const QLocale locale;
    if (locale.language() == QLocale::C)
        return record::DecimalMark::open;
    return locale.decimalPoint() == QStringLiteral(",") ? record::DecimalMark::comma : record::DecimalMark::point;
}
namespace {

constexpr int shortPause = 400;           // ms
constexpr int noPause = 24 * 3600 * 1000; // nobody types so long

std::vector<Typed*>& fields() {
    static std::vector<Typed*> all;
    return all;
}

} // namespace

Typed::Typed(QObject* field, int pause, std::function<void()> take)
    : QObject(field)
    , m_take(std::move(take)) {
    m_soon.setSingleShot(true);
    m_soon.setInterval(pause);
    connect(&m_soon, &QTimer::timeout, this, &Typed::commit);
    field->installEventFilter(this);
    fields().push_back(this);
}

Typed::~Typed() {
    std::erase(fields(), this);
}

void Typed::in(QLineEdit* field, std::function<void(const QString&)> take) {
    listen(field, shortPause, std::move(take));
}

void Typed::whole(QLineEdit* field, std::function<void(const QString&)> take) {
    listen(field, noPause, std::move(take));
}

void Typed::listen(QLineEdit* field, int pause, std::function<void(const QString&)> take) {
    auto* typed = new Typed(field, pause, [field, take = std::move(take)] { take(field->text()); });
    connect(field, &QLineEdit::textEdited, typed, [typed] { typed->m_soon.start(); });
    connect(field, &QLineEdit::returnPressed, typed, &Typed::commit);
}

void Typed::in(QPlainTextEdit* field, std::function<void(const QString&)> take) {
    auto* typed = new Typed(field, shortPause, [field, take = std::move(take)] { take(field->toPlainText()); });
    connect(field, &QPlainTextEdit::textChanged, typed, [typed, field] {
        if (field->hasFocus()) // not when the page shows another text
            typed->m_soon.start();
    });
}

void Typed::commit() {
    if (!m_soon.isActive() && sender() != &m_soon)
        return;
    m_soon.stop();
    m_take();
}

void Typed::commitAll() {
    const auto all = fields(); // taking may make and unmake fields
    for (Typed* typed : all)
        if (std::ranges::find(fields(), typed) != fields().end() && typed->m_soon.isActive())
            typed->commit();
}

// A page that goes hides its fields on the way, when what would take their text is gone already.
void Typed::giveUp(const QWidget* page) {
    for (Typed* typed : fields())
        if (page->isAncestorOf(qobject_cast<QWidget*>(typed->parent())))
            typed->m_soon.stop();
}

bool Typed::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::FocusOut || event->type() == QEvent::Hide)
        commit();
    return QObject::eventFilter(watched, event);
}

} // namespace knot::app
