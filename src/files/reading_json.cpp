#include "files/reading_json.h"

#include "core/judge/facts.h"
#include "core/words/remarks/remarks.h"

#include <nlohmann/json.hpp>

namespace knot::files {
namespace {

using judge::BuildAt;
using judge::Metric;
using judge::Reading;
using nlohmann::ordered_json;

// Takes the fields of one object.
class Row {
public:
    Row(const Reading& reading, ordered_json& out)
        : m_reading(reading)
        , m_out(out) {}

    template<typename T> void operator()(const char* name, const T& value, const char* = "") {
        m_out[name] = jsonOf(value);
    }
    template<typename T> void operator()(const char* name, const std::optional<T>& value, const char* = "") {
        if (value)
            m_out[name] = jsonOf(*value);
    }
    template<typename Fill> void object(const char* name, const Fill& fill) { m_out[name] = jsonOf(fill); }
    template<typename Rows> void list(const char* name, const Rows& rows) {
        ordered_json& out = m_out[name] = ordered_json::array();
        rows([&](const auto& row) { out.push_back(jsonOf(row)); });
    }
    // One object a metric. Where several pairs have one, the first stands under the metric and the others are listed in
    // its `more`.
    template<typename Rows> void byMetric(const char* name, const Rows& rows) {
        ordered_json& out = m_out[name] = ordered_json::object();
        rows([&](Metric metric, const auto& row, BuildAt build, BuildAt against) {
            ordered_json object = jsonOf(row);
            if (build != against) {
                object["build"] = m_reading.builds[build].name;
                object["against"] = m_reading.builds[against].name;
            }
            ordered_json& place = out[record::info(metric).key];
            if (place.is_null())
                place = std::move(object);
            else
                place["more"].push_back(std::move(object));
        });
    }

private:
    template<typename T> ordered_json jsonOf(const std::vector<T>& values) const {
        ordered_json all = ordered_json::array();
        for (const T& value : values)
            all.push_back(jsonOf(value));
        return all;
    }
    template<typename T> ordered_json jsonOf(const T& value) const {
        if constexpr (std::is_same_v<T, Metric>)
            return record::info(value).key;
        else if constexpr (std::is_same_v<T, BuildAt>)
            return m_reading.builds[value].name;
        else if constexpr (std::is_same_v<T, judge::Interval>)
            return {value.low, value.high};
        else if constexpr (std::is_same_v<T, record::Outcome>)
            return record::outcomeText(value);
        else if constexpr (std::is_enum_v<T>)
            return key(value);
        else if constexpr (std::is_arithmetic_v<T> || std::is_same_v<T, std::string>)
            return value;
        else {
            ordered_json object = ordered_json::object();
            Row row(m_reading, object);
            if constexpr (std::is_invocable_v<T, Row&>)
                value(row);
            else
                tell(row, value);
            return object;
        }
    }

    const Reading& m_reading;
    ordered_json& m_out;
};

} // namespace

std::string readingJson(const Reading& reading) {
    ordered_json json;
    json["format"] = "knotcount.reading";
    json["version"] = 1;
    Row row(reading, json);
    tell(row, reading);
    row.list("checks", [&](auto&& add) {
        for (const auto& check : words::checks(reading))
            add([&](auto& to) {
                to("code", check.code);
                to("severity", check.severity);
                to("text", check.text);
            });
    });
    json["sentences"] = words::sentences(reading, {});
    return json.dump(2, ' ', false, nlohmann::json::error_handler_t::replace) + "\n";
}

} // namespace knot::files
