# One INTERFACE target carries the compiler's strictness, so that every room is held to the same.
add_library(westrum_warnings INTERFACE)
target_compile_options(westrum_warnings INTERFACE
  -Wall -Wextra -Wpedantic -Wshadow -Wnon-virtual-dtor -Woverloaded-virtual -Wold-style-cast -Werror
  # Designated initialisers leave out members on purpose.
  -Wno-missing-field-initializers
  # What GCC leaves out of -Wall, clang does not: braces of inner aggregates that nobody can misread.
  $<$<CXX_COMPILER_ID:Clang>:-Wno-missing-braces>
  # GCC 12 sees overlapping copies in std::string's operator+ and unset strings in braced temporaries that cannot
  # happen; the sanitizer run watches over both.
  $<$<CXX_COMPILER_ID:GNU>:-Wno-restrict>
  $<$<CXX_COMPILER_ID:GNU>:-Wno-maybe-uninitialized>)
# Same Job, same Plan on any machine: no fused multiply-add that another processor would round differently.
target_compile_options(westrum_warnings INTERFACE -ffp-contract=off)
if(WESTRUM_SANITIZE)
  add_compile_options(-fsanitize=${WESTRUM_SANITIZE} -fno-omit-frame-pointer -fno-sanitize-recover=all)
  add_link_options(-fsanitize=${WESTRUM_SANITIZE})
endif()
