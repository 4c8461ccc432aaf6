#pragma once

#include "core/words/headline.h"

#include <QObject>

#include <atomic>
#include <memory>
#include <set>
#include <string>

namespace knot::app {

class Book;

/// What the list says of each test. While the list is looked at, the tests of which nothing is said are
/// read one after the other, the newest first, off the window's thread.
class Findings : public QObject {
    Q_OBJECT

public:
    explicit Findings(Book& book, QObject* parent = nullptr);
    ~Findings() override;

    /// Whether the list is looked at.
    void setWatched(bool watched);
    /// Keeps how a test stands. What a reading is to say and has not yet said is not kept.
    void keep(const record::Test& test, const words::Standing& standing);

private:
    void next();
    void read(const std::string& id);

    Book& m_book;
    std::set<std::string> m_tried;                ///< also those that can't be loaded or judged: once is enough
    std::shared_ptr<std::atomic<bool>> m_givenUp; ///< whether the judge at work is to give up
    bool m_watched = false, m_reading = false;
};

} // namespace knot::app
