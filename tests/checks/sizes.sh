#!/usr/bin/env bash
# A source file should fit in the head: 500 lines at most.
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
exit $faults
