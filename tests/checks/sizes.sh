#!/usr/bin/env bash
# What fits in the head: a source file 500 lines at most, and so a class over all its files, with 40 public functions
# at most.
set -u
cd "$1" || exit 1
faults=0
while IFS= read -r file; do
    lines=$(wc -l < "$file")
    if [ "$lines" -gt 500 ]; then
        echo "$file has $lines lines; split it"
        faults=1
    fi
done < <(find src tests -name '*.h' -o -name '*.cpp')
# The sources are formatted, so that a class and a function end with a brace in the first column.
found=$(find src -name '*.h' -o -name '*.cpp' | sort | xargs awk '
    FNR == 1 { in_class = ""; in_function = "" }
    in_class == "" && in_function == "" && /^(class|struct) [A-Za-z_]+.*\{$/ {
        in_class = $2; shown = $1 == "struct"
    }
    in_class == "" && in_function == "" && /^[A-Za-z].*[A-Za-z_]+::~?[A-Za-z_]+\(/ && !/;$/ {
        name = $0; sub(/::~?[A-Za-z_]+\(.*/, "", name); sub(/.*[^A-Za-z_]/, "", name); in_function = name
    }
    in_class != "" {
        ++size[in_class]
        if (/^public:|^signals:/) shown = 1
        if (/^private:|^protected:/) shown = 0
        if (shown && /^    [A-Za-z].*[A-Za-z_]\(.*[;{}]$/ && !/^     /) ++open[in_class]
    }
    in_function != "" { ++size[in_function] }
    /^\};$/ { in_class = "" }
    /^\}$/ { in_function = "" }
    END {
        for (name in size) if (size[name] > 500) print name " has " size[name] " lines over all its files; split it"
        for (name in open) if (open[name] > 40) print name " has " open[name] " public functions; split it"
    }')
if [ -n "$found" ]; then
    echo "$found"
    faults=1
fi
exit $faults
