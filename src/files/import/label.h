#pragma once

#include "files/import/shot_file.h"

#include <string>
#include <vector>

namespace knot::files {

/// A label taken apart.
struct Label {
    std::string club;
    std::string delivery = {}, player = {}, note = {};
};

/// What parts every one of these labels in two, such as " – " or "/", where both parts come again;
/// empty where nothing does.
std::string separatorOf(const std::vector<std::string>& labels);

/// A label as its second part is meant: a tag stays with the club's name.
Label labelOf(const std::string& label, const std::string& separator, SecondPart second);

} // namespace knot::files
