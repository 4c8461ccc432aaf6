# knot_embed_text(TARGET SYMBOL FILE): compiles a text file into TARGET as
# `extern const std::string_view SYMBOL` in namespace knot::embedded.
function(knot_embed_text target symbol file)
  get_filename_component(path ${file} ABSOLUTE BASE_DIR ${PROJECT_SOURCE_DIR})
  set_property(DIRECTORY APPEND PROPERTY CMAKE_CONFIGURE_DEPENDS ${path})
  file(READ ${path} KNOT_EMBED_TEXT)
  set(KNOT_EMBED_SYMBOL ${symbol})
  set(output ${CMAKE_CURRENT_BINARY_DIR}/embedded_${symbol}.cpp)
  configure_file(${PROJECT_SOURCE_DIR}/cmake/embedded.cpp.in ${output} @ONLY)
  target_sources(${target} PRIVATE ${output})
endfunction()
