#include "core/judge/seed.h"

namespace knot::judge {

std::uint64_t seedFor(const JudgeRequest& request, const char* use, Metric metric, BuildAt build, BuildAt against) {
    // FNV-1a over the names.
    std::uint64_t hash = 0xcbf29ce484222325ULL ^ request.seed;
    auto mix = [&](const std::string& text) {
        for (const char c : text)
            hash = (hash ^ static_cast<unsigned char>(c)) * 0x100000001b3ULL;
        hash = (hash ^ 0xff) * 0x100000001b3ULL;
    };
    mix(use);
    mix(record::info(metric).key);
    if (build != against) {
        mix(request.subject.test().builds[build].name);
        mix(request.subject.test().builds[against].name);
    }
    return hash;
}

} // namespace knot::judge
