#!/usr/bin/env bash
# Words on the screen that would stop a fitter (tests/checks/words.csv), looked for in texts alone.
set -u
cd "$1" || exit 1
lines=$(grep -rn '"' src --include='*.cpp' --include='*.h' | grep -v '#include' | grep -vE ':[0-9]+: *//')
faults=0
while IFS=, read -r pattern say why; do
    [ "$pattern" = "instead of" ] && continue
    found=$(printf '%s\n' "$lines" | grep -E "\"[^\"]*($pattern)[^\"]*\"")
    if [ -n "$found" ]; then
        printf 'say “%s”: %s\n%s\n' "$say" "$why" "$found"
        faults=1
    fi
done < tests/checks/words.csv
exit $faults
