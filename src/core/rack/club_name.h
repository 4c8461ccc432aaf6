#pragma once

#include "core/rack/club_kind.h"

// What the name of a club says of it: its kind, its number, its loft.
namespace knot::rack {

/// A piece of a name: a run of letters, or a number.
struct NamePiece {
    std::string word;
    std::optional<double> number;
    bool isWhole = true;    ///< of a number: without decimals
    bool isDegrees = false; ///< of a number: with ° behind it
};
std::vector<NamePiece> piecesOf(std::string_view name);

/// A figure from 1 to 9, by which clubs are numbered.
bool isClubNumber(const NamePiece& piece);
/// Whether a figure only counts: "Club 7" is only the seventh.
bool isCounted(const std::vector<NamePiece>& pieces);
/// "Ash 1", "Ash 2", "Ash 3": the same words, and figures that count the clubs.
bool areCounted(const std::vector<record::Build>& clubs);
/// A kind with its number, as far as words say it, also in other languages. A letter alone speaks only beside a club's
/// number.
std::optional<ClubKind> kindSaid(const std::vector<NamePiece>& pieces);
/// The loft among the pieces of a name: in degrees, or a figure that only a driver's loft looks like.
std::optional<double> loftIn(const std::vector<NamePiece>& pieces);

/// The loft that a club's name is, alone or behind a make: "9.5", "10.5 deg", "M 9.5", "D12°". Nothing where it is
/// none.
std::optional<double> loftNamed(std::string_view name);
/// How much a setting that is a club's name adds: "+1", "-1.5", "STD".
std::optional<double> settingNamed(std::string_view name);
/// Clubs that are called by their lofts, or by the settings of a sleeve, are made so: nothing else is changed.
void takeLoftsFromNames(std::vector<record::Build>& clubs);

} // namespace knot::rack
