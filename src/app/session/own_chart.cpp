#include "app/session/own_chart.h"

#include "app/session/book.h"
#include "files/window_chart.h"

namespace knot::app {
namespace {

constexpr const char* chartSetting = "windowChart"; // its name, and from the next line on its text

} // namespace

std::optional<reach::Chart> ownChart(Book& book) {
    const std::string kept = book.setting(chartSetting).toStdString();
    const auto end = kept.find('\n');
    if (end == std::string::npos)
        return std::nullopt;
    auto chart = files::readChart(kept.substr(0, end), kept.substr(end + 1));
    return chart ? std::optional(std::move(*chart)) : std::nullopt;
}

void setOwnChart(Book& book, const std::optional<reach::Chart>& chart) {
    book.setSetting(chartSetting,
                    chart ? QString::fromStdString(chart->name + '\n' + reach::chartText(chart->rows)) : QString());
    emit book.unitsChanged(); // what is shown of the numbers is another
}

} // namespace knot::app
