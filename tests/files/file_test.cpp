#include "files/base/file.h"
#include "files/test_json.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

#include <sys/resource.h>

#include <csignal>
#include <cstdlib>
#include <filesystem>
#include <string>

using namespace knot;
namespace fs = std::filesystem;

namespace {

// A folder of its own, gone afterwards.
struct Folder {
    fs::path path;
    Folder() {
        std::string made = (fs::temp_directory_path() / "knot-file-XXXXXX").string();
        REQUIRE(::mkdtemp(made.data()));
        path = made;
    }
    ~Folder() { fs::remove_all(path); }
    std::string at(const char* name) const { return (path / name).string(); }
    std::ptrdiff_t entries() const { return std::distance(fs::directory_iterator(path), fs::directory_iterator()); }
};

// A disk with room for so many bytes in a file: more is refused, as on one that is full.
struct SmallDisk {
    rlimit before{};
    explicit SmallDisk(rlim_t bytes) {
        std::signal(SIGXFSZ, SIG_IGN);
        REQUIRE(::getrlimit(RLIMIT_FSIZE, &before) == 0);
        rlimit now = before;
        now.rlim_cur = bytes;
        REQUIRE(::setrlimit(RLIMIT_FSIZE, &now) == 0);
    }
    ~SmallDisk() {
        ::setrlimit(RLIMIT_FSIZE, &before);
        std::signal(SIGXFSZ, SIG_DFL);
    }
};

} // namespace

TEST_CASE("a file is written and read byte for byte, and a second writing replaces the first whole") {
    const Folder folder;
    const std::string long_(100000, 'x');
    for (const std::string& text : {long_, std::string("a\r\nb\0c\n\xC3\xA0", 9), std::string()}) {
        REQUIRE(files::writeFile(folder.at("shots.csv"), text));
        CHECK(files::readFile(folder.at("shots.csv")).value() == text);
        CHECK(folder.entries() == 1);
    }
}

TEST_CASE("where a file can't be written the old one stays whole and nothing half-written is left") {
    const Folder folder;
    REQUIRE(files::writeFile(folder.at("test.json"), "old"));
    tl::expected<void, files::Error> written;
    {
        const SmallDisk disk(1000);
        written = files::writeFile(folder.at("test.json"), std::string(5000, 'x'));
    }
    REQUIRE(!written);
    CHECK(written.error().kind == files::ErrorKind::cannotWrite);
    CHECK(files::sentence(written.error()).find("test.json") != std::string::npos);
    CHECK(files::readFile(folder.at("test.json")).value() == "old");
    CHECK(folder.entries() == 1);
}

TEST_CASE("a folder is not a file, to write or to read, and one that is missing is named") {
    const Folder folder;
    fs::create_directory(folder.path / "taken");
    const auto over = files::writeFile(folder.at("taken"), "text");
    REQUIRE(!over);
    CHECK(over.error().kind == files::ErrorKind::cannotWrite);
    CHECK(folder.entries() == 1);
    CHECK(!files::writeFile(folder.at("missing/test.json"), "text"));
    const auto read = files::readFile(folder.at("taken"));
    REQUIRE(!read);
    CHECK(files::sentence(read.error()).find("it is a folder") != std::string::npos);
    CHECK(files::readFile(folder.at("none.csv")).error().kind == files::ErrorKind::cannotOpen);
}

TEST_CASE("a test cut off anywhere in its file is refused whole") {
    const std::string text = files::testJson(test::loadReference("gaps_in_record").test);
    REQUIRE(files::readTestJson("t.json", text));
    const auto last = text.find_last_of('}');
    for (std::size_t end = 0; end <= last; end += 1 + last / 97)
        CHECK(!files::readTestJson("t.json", text.substr(0, end)));
}
