#pragma once

#include <string>

namespace knot::record {

/// SHA-256 of a text, in hexadecimal figures.
std::string sha256(const std::string& text);

/// A UUID that a text gives, the same everywhere (version 5).
std::string idMadeOf(const std::string& text);

} // namespace knot::record
