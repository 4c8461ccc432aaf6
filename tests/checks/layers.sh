#!/usr/bin/env bash
# Each folder may include only what stands before it (docs/architecture.md).
set -u
cd "$1/src" || exit 1
faults=0
forbid() { # folder, pattern, reason
    local found
    found=$(grep -rnE "#include [<\"]($2)" "$1" --include='*.h' --include='*.cpp')
    if [ -n "$found" ]; then
        printf '%s: %s\n%s\n' "$1" "$3" "$found"
        faults=1
    fi
}
forbid core 'Q[A-Z]|Qt|files/|logbook/|link/|app/|cli/|SQLite|nlohmann|csv\.h|CLI/|fstream|iostream' 'the core has no interface, no files and no Qt'
forbid files 'Q[A-Z]|Qt|logbook/|app/|cli/|SQLite' 'files stand on the core alone'
forbid logbook 'Q[A-Z]|Qt|app/|cli/' 'the logbook stands on the core and on files'
forbid link 'Q[A-Z]|Qt|files/|logbook/|app/|cli/' 'the link stands on the core alone'
forbid monitor 'QApplication|QWidget|QtWidgets|app/|cli/' 'the simulated monitor has no window'
forbid cli 'Q[A-Z]|Qt|app/' 'the command line has no window'
# Between the rooms of the core: each stands on those before it.
forbid core/statistics 'core/(record|rack|plan|bay|judge|words|flight|simulate|ask)' 'statistics is the ground floor'
forbid core/record 'core/(rack|plan|bay|judge|words|flight|simulate|ask)' 'the record knows nothing of what is made of it'
forbid core/flight 'core/(rack|plan|bay|judge|words|simulate|ask)' 'flight stands on the record alone'
forbid core/rack 'core/(plan|bay|judge|words|simulate|ask)' 'the rack stands on the record'
forbid core/reach 'core/(plan|bay|judge|words|simulate|ask)' 'what a swing could reach stands on flight and rack'
forbid core/plan 'core/(bay|judge|words|simulate|ask)' 'the plan stands on record and rack'
forbid core/bay 'core/(judge|words|simulate|ask)' 'the bay judges nothing'
forbid core/judge 'core/(words|simulate|ask)' 'the judge says nothing and knows no simulated player'
forbid core/bag 'core/(bay|words|simulate|ask)' 'a bag stands on the judge and says nothing'
forbid core/words 'core/(simulate|ask)' 'words are for what was read'
forbid core/ask 'core/simulate' 'a question knows no simulated player'
readers=$(grep -rnE 'from_chars|\b(isdigit|stoi|stol|stoul|stoull|stod|strtod|strtol|atoi|atoll|atof)\b' . --include='*.h' --include='*.cpp' |
    grep -v '^./core/record/typed/')
if [ -n "$readers" ]; then
    printf 'figures become numbers in core/record/typed alone\n%s\n' "$readers"
    faults=1
fi
forbid files/base 'files/import|files/[a-z_]+\.h' 'the ground floor of files'
forbid files/import 'files/[a-z_]+\.h' 'import stands on the ground floor of files'
# In the window: what pages are made of knows no page, and a page no other one, nor the frame around it.
for room in form style picture lists session sources pictures report; do
    forbid "app/$room" 'app/(shell|[a-z]+_page)/' 'it knows no page'
done
forbid app/style 'app/(form|session|picture|sources)' 'style is the ground floor of the window'
forbid app/form 'app/(session|sources|report|lists|pictures)' 'what pages are made of knows no test'
for page in app/*_page; do
    found=$(grep -rnE '#include "app/(shell|[a-z]+_page)/' "$page" --include='*.h' --include='*.cpp' | grep -v "#include \"$page/")
    if [ -n "$found" ]; then
        printf '%s: a page includes no other page, nor the frame\n%s\n' "$page" "$found"
        faults=1
    fi
done
headers=$(grep -rnE '#include <(boost|Eigen)' core --include='*.h')
if [ -n "$headers" ]; then
    printf 'core headers: Boost and Eigen stay inside .cpp files\n%s\n' "$headers"
    faults=1
fi
for name in axis club cords face power strip swarm; do
    if grep -nE '#include [<"]Q' "app/picture/$name.h" "app/picture/$name.cpp"; then
        echo "app/picture/$name: geometry is free of Qt"
        faults=1
    fi
done
labels=$(grep -rn 'new QLabel' app --include='*.h' --include='*.cpp' | grep -v '^app/style/labels.h:')
if [ -n "$labels" ]; then
    printf 'labels are made by style/labels, so that no name is taken for markup\n%s\n' "$labels"
    faults=1
fi
exit $faults
