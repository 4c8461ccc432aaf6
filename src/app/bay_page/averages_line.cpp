#include "app/bay_page/averages_line.h"

#include "app/bay_page/bay_words.h"
#include "app/session/background.h"
#include "app/session/book.h"
#include "app/session/test_in_hand.h"
#include "app/style/fonts.h"
#include "app/style/palette.h"
#include "core/bay/strike.h"

namespace knot::app {

AveragesLine::AveragesLine(const TestInHand& hand, const Book& book)
    : m_hand(hand)
    , m_book(book) {
    setObjectName(QStringLiteral("averages"));
    setTextFormat(Qt::PlainText);
    setWordWrap(true);
    setAlignment(Qt::AlignRight);
    setFont(typeface(size::caption));
    setForegroundRole(QPalette::PlaceholderText);
    m_soon.setSingleShot(true);
    m_soon.setInterval(300);
    connect(&m_soon, &QTimer::timeout, this, &AveragesLine::refresh);
}

void AveragesLine::refresh() {
    if (!m_hand.has() || !maySeeAverages(m_hand.test(), Eyes::fitter))
        return forget();
    struct Live {
        QString line;
        std::vector<words::NumberSoFar> soFar;
    };
    inBackground(
        this,
        [test = m_hand.test(), units = m_book.units()] {
            Live live{averagesLine(test, units), {}};
            if (const auto inHand = bay::inHand(test))
                live.soFar = words::numbersSoFar(judge::Case::of(test), inHand->build, record::allMetrics());
            return live;
        },
        [this, id = m_hand.test().id](const std::optional<Live>& live) {
            if (!live || !m_hand.has() || m_hand.test().id != id)
                return;
            setText(live->line);
            m_soFar = live->soFar;
            emit reckoned();
        });
}

void AveragesLine::forget() {
    clear();
    m_soFar.clear();
}

} // namespace knot::app
