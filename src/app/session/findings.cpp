#include "app/session/findings.h"

#include "app/session/background.h"
#include "app/session/book.h"
#include "core/judge/judge.h"

#include <QTimer>

#include <algorithm>

namespace knot::app {
namespace {

// Between two tests the window has time for itself.
constexpr int restMs = 20;

} // namespace

Findings::Findings(Book& book, QObject* parent)
    : QObject(parent)
    , m_book(book)
    , m_givenUp(std::make_shared<std::atomic<bool>>(false)) {
    connect(&book, &Book::changed, this, [this] {
        m_tried.clear();
        next();
    });
}

Findings::~Findings() {
    *m_givenUp = true;
}

void Findings::setWatched(bool watched) {
    m_watched = watched;
    *m_givenUp = !watched;
    next();
}

void Findings::keep(const record::Test& test, const words::Standing& standing) {
    if (standing.verdict || !words::isToldByReading(test))
        m_book.keepFinding(
            test.id, {.verdict = standing.verdict ? static_cast<int>(*standing.verdict) : -1, .text = standing.text});
}

void Findings::next() {
    if (!m_watched || m_reading)
        return;
    const auto at = std::ranges::find_if(m_book.tests(), [this](const auto& entry) {
        return entry.finding.text.empty() && entry.counted + entry.setAside > 0 && !m_tried.contains(entry.id);
    });
    if (at != m_book.tests().end())
        read(at->id);
}

void Findings::read(const std::string& id) {
    m_tried.insert(id);
    auto loaded = m_book.peek(id);
    if (!loaded)
        return next();
    m_reading = true;
    const auto test = std::make_shared<const record::Test>(std::move(*loaded));
    inBackground(
        this,
        [test, units = m_book.units(), givenUp = m_givenUp] {
            std::optional<judge::Reading> reading;
            if (words::isToldByReading(*test))
                reading = judge::judge(
                    {.subject = judge::Case::of(*test), .seed = 1, .cancelled = [givenUp] { return givenUp->load(); }});
            return words::standingOf(*test, reading ? &*reading : nullptr, units);
        },
        [this, test, path = m_book.path(), writes = m_book.writes()](const std::optional<words::Standing>& standing) {
            m_reading = false; // opening a test that can't be read says what is wrong with it
            // Another logbook may have come meanwhile, or another state of the test.
            const bool holds = path == m_book.path() && writes == m_book.writes();
            if (standing && holds)
                keep(*test, *standing);
            if (!holds || *m_givenUp)
                m_tried.erase(test->id);
            QTimer::singleShot(restMs, this, &Findings::next);
        });
}

} // namespace knot::app
