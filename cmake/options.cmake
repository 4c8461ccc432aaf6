# Language level, warnings and sanitizers, in one interface target that every target links.
add_library(knot_options INTERFACE)
target_compile_features(knot_options INTERFACE cxx_std_20)
target_compile_options(knot_options INTERFACE
  -Wall -Wextra -Wpedantic -Wshadow -Wconversion -Wno-sign-conversion -Wno-missing-field-initializers
  -Wnon-virtual-dtor
  -Woverloaded-virtual -Wold-style-cast
  # GCC 12 finds overlaps in std::string that are not there (its bug 105651, under three names).
  $<$<CXX_COMPILER_ID:GNU>:-Wno-restrict> $<$<CXX_COMPILER_ID:GNU>:-Wno-stringop-overflow>
  $<$<CXX_COMPILER_ID:GNU>:-Wno-array-bounds>
  # GCC 12, optimising, takes variables of Boost's quantiles for unset that their helpers set.
  $<$<CXX_COMPILER_ID:GNU>:-Wno-maybe-uninitialized>
  # Small results must not depend on whether the compiler fused a multiply and an add.
  -ffp-contract=off
  $<$<BOOL:${KNOT_WARNINGS_AS_ERRORS}>:-Werror>)
target_compile_definitions(knot_options INTERFACE KNOT_VERSION="${PROJECT_VERSION}")
target_include_directories(knot_options INTERFACE ${PROJECT_SOURCE_DIR}/src)
# Files from elsewhere are read: what a mistake there could do is made harder.
if(NOT KNOT_SANITIZE AND NOT KNOT_FUZZ)
  target_compile_options(knot_options INTERFACE -fstack-protector-strong
    $<$<CONFIG:Release>:-U_FORTIFY_SOURCE> $<$<CONFIG:Release>:-D_FORTIFY_SOURCE=2>)
  target_link_options(knot_options INTERFACE -Wl,-z,relro,-z,now)
endif()
# Where nothing is simulated or read by the megabyte, the compiler's own time counts for more.
set(KNOT_NOTHING_SIMULATED $<$<CONFIG:Release>:-O1>)
if(KNOT_FUZZ)
  target_compile_options(knot_options INTERFACE -fsanitize=fuzzer-no-link,address,undefined -fno-sanitize-recover=all -g)
  target_link_options(knot_options INTERFACE -fsanitize=address,undefined)
endif()
if(KNOT_SANITIZE)
  # Without the checks at every use of a member (a null pointer ends the program anyway): with them GCC 12 takes
  # ten times as long, two minutes for a file of 200 lines.
  target_compile_options(knot_options INTERFACE -fsanitize=address,undefined
    -fno-sanitize=null,alignment,vptr,object-size -fno-omit-frame-pointer)
  target_link_options(knot_options INTERFACE -fsanitize=address,undefined)
endif()
set(CMAKE_CXX_EXTENSIONS OFF)
