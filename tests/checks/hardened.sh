#!/usr/bin/env bash
# Holds what is linked to what the flags promise: position-independent, relocations read-only from the start, a stack
# that can't be run, and canaries.
set -eu
status=0
for program in "$@"; do
    lacks() { echo "$program: $1"; status=1; }
    readelf -hW "$program" | grep -q "Type:.*DYN" || lacks "not position-independent"
    readelf -lW "$program" | grep -q "GNU_RELRO" || lacks "no read-only relocations"
    readelf -dW "$program" | grep -qE "BIND_NOW|Flags:.* NOW" || lacks "bound late"
    readelf -lW "$program" | grep "GNU_STACK" | grep -q "RWE" && lacks "a stack that can be run"
    readelf -sW --dyn-syms "$program" | grep -q "__stack_chk_fail" || lacks "no canaries"
done
exit $status
