#!/usr/bin/env python3
"""Makes the files of this folder: one record of shots in the ways in which other programs might write it.

Each style is a row of STYLES: which words head the columns, in which units and marks the readings stand, what
else is in the file. Beside each file stands NAME.expected.json: what each heading must be taken for, which
headings must be asked about, and every reading in SI units to compare with.

    python3 make_corpus.py            writes the files beside this script
"""
import json
import os
import random
import zipfile
from xml.sax.saxutils import escape

HERE = os.path.dirname(os.path.abspath(__file__))
TO_SI = {"ms": 1, "mph": 0.44704, "kmh": 1 / 3.6, "m": 1, "yd": 0.9144, "ft": 0.3048, "deg": 1, "rpm": 1, "one": 1,
         "mm": 1, "in": 25.4, "s": 1}
DECIMALS = {"ms": 1, "mph": 1, "kmh": 1, "m": 1, "yd": 1, "ft": 0, "deg": 1, "rpm": 0, "one": 2, "mm": 1, "in": 2, "s": 2}
SUFFIX = {"one": ""}
SIDED = {"side", "launch_direction", "spin_axis", "curve", "path", "face"}

CLUBS = {"Larch 7": (34.2, 46.1, 18.4, 6480, 141.0), "Reed 7": (34.6, 46.9, 17.6, 6120, 145.0),
         "Flint 7": (34.0, 45.6, 19.2, 6890, 138.0)}


def record(clubs=None, per_club=4, laps=2, seed=7):
    """Shots in SI units: club, minute, readings."""
    rnd = random.Random(seed)
    shots = []
    clubs = clubs or list(CLUBS)
    number = 0
    for lap in range(laps):
        for club in clubs:
            cs, bs, launch, spin, carry = CLUBS.get(club, CLUBS["Larch 7"])
            for _ in range(per_club):
                number += 1
                d = rnd.gauss(0, 1)
                readings = {
                    "club_speed": cs + rnd.gauss(0, 0.4), "ball_speed": bs + 0.5 * d, "launch": launch + rnd.gauss(0, 0.8),
                    "launch_direction": rnd.gauss(0, 1.5), "spin": spin + rnd.gauss(0, 250), "spin_axis": rnd.gauss(0, 4),
                    "carry": carry + 2.2 * d, "total": carry + 6 + 2.4 * d, "side": rnd.gauss(0, 5), "curve": rnd.gauss(0, 4),
                    "apex": 28 + rnd.gauss(0, 1), "descent": 46 + rnd.gauss(0, 1), "hang": 5.8 + rnd.gauss(0, 0.1),
                    "attack": -3.5 + rnd.gauss(0, 0.6), "path": rnd.gauss(0.5, 1.2), "face": rnd.gauss(0.2, 1),
                    "dynamic_loft": 24 + rnd.gauss(0, 0.8), "strike_toe": rnd.gauss(0, 6), "strike_high": rnd.gauss(1, 4)}
                readings["smash"] = readings["ball_speed"] / readings["club_speed"]
                readings["face_to_path"] = readings["face"] - readings["path"]
                readings["spin_loft"] = readings["dynamic_loft"] - readings["attack"]
                shots.append({"club": club, "number": number, "minute": number + (12 if number > 12 else 0), "lap": lap + 1,
                              "readings": readings})
    return shots


def number(value, decimals, style):
    text = f"{abs(value):.{decimals}f}"
    whole, _, part = text.partition(".")
    if style.get("thousands") and len(whole) > 3:
        whole = whole[:-3] + style["thousands"] + whole[-3:]
    text = whole + (style.get("decimal", ".") + part if part else "")
    return value < 0 and float(f"{value:.{decimals}f}") != 0, text


def cell(value, metric, unit, style):
    """The reading as the file writes it, and what it then is in SI."""
    decimals = style.get("decimals", {}).get(metric, DECIMALS[unit])
    shown = round(value / TO_SI[unit], decimals)
    negative, text = number(shown, decimals, style)
    if style.get("sides") and metric in SIDED and float(shown) != 0:
        letter = style["sides"][0 if negative else 1]
        text = f"{letter} {text}" if style.get("side_first") else f"{text} {letter}" if style.get("side_blank", True) else text + letter
    elif negative:
        text = style.get("minus", "-") + text
    if style.get("cell_units"):
        text += style["cell_units"].get(metric, "")
    return text, shown * TO_SI[unit]


def clock(minute, style):
    hour, minute = 14 + (minute // 60), minute % 60
    kind = style.get("time", "iso")
    if kind == "iso":
        return f"2031-05-04T{hour:02d}:{minute:02d}:09"
    if kind == "dotted":
        return f"4.5.2031 {hour:02d}:{minute:02d}"
    if kind == "ampm":
        return f"5/14/2031 {hour - 12}:{minute:02d}:09 PM"
    if kind == "clock":
        return f"{hour:02d}:{minute:02d}:09"
    if kind == "clock_ampm":
        return f"{hour - 12}:{minute:02d} PM"
    return f"14 May 2031 {hour:02d}:{minute:02d}"


def moment(minute, style):
    hour, minute = 14 + (minute // 60), minute % 60
    kind = style.get("time", "iso")
    day = "2031-05-14" if kind in ("ampm", "words") else "2031-05-04"
    seconds = "00" if kind in ("dotted", "clock_ampm", "words") else "09"
    time = f"{hour:02d}:{minute:02d}:{seconds}"
    return time if kind in ("clock", "clock_ampm") else f"{day}T{time}"


# heading, meaning, unit. Meanings: club, shot, time, player, text:VALUE, or a metric's stem.
VOCABULARIES = {
    "plain": [("Club", "club", None), ("Club Speed", "club_speed", "mph"), ("Ball Speed", "ball_speed", "mph"),
              ("Launch Angle", "launch", "deg"), ("Spin Rate", "spin", "rpm"), ("Smash Factor", "smash", "one"),
              ("Attack Angle", "attack", "deg"), ("Carry Distance", "carry", "yd"), ("Offline", "side", "yd")],
    "short": [("No.", "shot", None), ("Club", "club", None), ("Clb Spd", "club_speed", "mph"),
              ("Ball Spd", "ball_speed", "mph"), ("Lnch Ang", "launch", "deg"), ("Lnch Dir", "launch_direction", "deg"),
              ("Tot. Spin", "spin", "rpm"), ("Axis", "spin_axis", "deg"), ("Carry", "carry", "yd"), ("Total", "total", "yd"),
              ("Off Line", "side", "yd"), ("Peak Ht", "apex", "ft"), ("Land. Ang", "descent", "deg")],
    "letters": [("#", "shot", None), ("Club Name", "club", None), ("CS", "club_speed", "mph"), ("BS", "ball_speed", "mph"),
                ("SF", "smash", "one"), ("VLA", "launch", "deg"), ("HLA", "launch_direction", "deg"), ("AoA", "attack", "deg"),
                ("FTP", "face_to_path", "deg"), ("Carry", "carry", "m"), ("Height", "apex", "m"), ("Curve", "curve", "m")],
    "long": [("Shot Number", "shot", None), ("Club Description", "club", None), ("Club Head Speed", "club_speed", "kmh"),
             ("Ball Velocity", "ball_speed", "kmh"), ("Vertical Launch Angle", "launch", "deg"),
             ("Horizontal Launch Angle", "launch_direction", "deg"), ("Back Spin Rate", "spin", "rpm"),
             ("Spin Axis Tilt", "spin_axis", "deg"), ("Angle of Attack", "attack", "deg"), ("Club Path", "path", "deg"),
             ("Face Angle", "face", "deg"), ("Dynamic Loft", "dynamic_loft", "deg"), ("Spin Loft", "spin_loft", "deg"),
             ("Carry Distance", "carry", "m"), ("Total Distance", "total", "m"), ("Lateral Deviation", "side", "m"),
             ("Maximum Height", "apex", "m"), ("Angle of Descent", "descent", "deg"), ("Time of Flight", "hang", "s")],
    "strike": [("Club", "club", None), ("Ball Speed", "ball_speed", "ms"), ("Carry", "carry", "m"),
               ("Face Impact Horizontal", "strike_toe", "mm"), ("Face Impact Vertical", "strike_high", "mm"),
               ("Landing Angle", "descent", "deg"), ("Air Time", "hang", "s")],
    "camel": [("clubName", "club", None), ("clubSpeed", "club_speed", "mph"), ("ballSpeed", "ball_speed", "mph"),
              ("launchAngle", "launch", "deg"), ("launchDirection", "launch_direction", "deg"), ("backSpin", "spin", "rpm"),
              ("carryDistance", "carry", "yd"), ("totalDistance", "total", "yd"), ("apexHeight", "apex", "ft")],
    "own": [("build", "club", None), ("shot", "shot", None), ("club_speed_ms", "club_speed", "ms"),
            ("ball_speed_ms", "ball_speed", "ms"), ("smash", "smash", "one"), ("launch_deg", "launch", "deg"),
            ("spin_rpm", "spin", "rpm"), ("carry_m", "carry", "m"), ("side_m", "side", "m")],
    "labels": [("club", "club", None), ("club speed", "club_speed", "ms"), ("ball speed", "ball_speed", "ms"),
               ("smash factor", "smash", "one"), ("attack angle", "attack", "deg"), ("club path", "path", "deg"),
               ("face angle", "face", "deg"), ("face to path", "face_to_path", "deg"), ("dynamic loft", "dynamic_loft", "deg"),
               ("spin loft", "spin_loft", "deg"), ("launch", "launch", "deg"), ("launch direction", "launch_direction", "deg"),
               ("spin", "spin", "rpm"), ("spin axis", "spin_axis", "deg"), ("carry", "carry", "m"), ("total", "total", "m"),
               ("side", "side", "m"), ("curve", "curve", "m"), ("apex", "apex", "m"), ("descent", "descent", "deg"),
               ("hang time", "hang", "s"), ("strike toe–heel", "strike_toe", "mm"), ("strike height", "strike_high", "mm")],
    "typos": [("Club", "club", None), ("Bal Speed", "ball_speed", "mph"), ("Lanch Angle", "launch", "deg"),
              ("Spin Raet", "spin", "rpm"), ("Cary Distance", "carry", "yd"), ("Atack Angle", "attack", "deg"),
              ("Smash Facter", "smash", "one")],
    "others": [("Date", "time", None), ("Player", "player", None), ("Club", "club", None), ("Brand", "text:Alder", None),
               ("Ball", "text:soft", None), ("Ball Speed", "ball_speed", "mph"), ("Side Spin", "text:-312", None),
               ("Total Spin", "spin", "rpm"), ("Carry", "carry", "yd"), ("Roll", "text:7.1", None), ("Tempo", "text:3.1 : 1", None),
               ("Notes", "note", None)],
    "caps": [("CLUB", "club", None), ("BALL SPEED", "ball_speed", "mph"), ("LAUNCH ANG.", "launch", "deg"),
             ("SPIN", "spin", "rpm"), ("CARRY", "carry", "yd"), ("SIDE", "side", "yd")],
    "v and h": [("Club", "club", None), ("Ball Speed", "ball_speed", "mph"), ("Launch V", "launch", "deg"),
                ("Launch H", "launch_direction", "deg"), ("Spin ax.", "spin_axis", "deg"), ("Dyn. loft", "dynamic_loft", "deg"),
                ("Att. ang.", "attack", "deg"), ("Lat.", "side", "m"), ("Carry", "carry", "m"), ("Speed", "club_speed", "mph")],
    "two lines": [("Club", "club", None), ("Ball\nSpeed\n", "ball_speed", "kmh"), ("Carry\nDistance\n", "carry", "m"),
                  ("Spin Rate\n", "spin", "rpm")],
    # What stands before the bar stands in a row above; in parentheses where the heading needs it not.
    "grouped": [("Shot", "shot", None), ("Club", "club", None), ("Head|Speed", "club_speed", "mph"),
                ("(Head)|Attack Angle", "attack", "deg"), ("Ball|Speed", "ball_speed", "mph"), ("(Ball)|Launch Angle", "launch", "deg"),
                ("(Ball)|Spin Rate", "spin", "rpm"), ("(Flight)|Carry", "carry", "yd"), ("(Flight)|Offline", "side", "yd")],
    "by value": [("Club", "club", None), ("Club", "club_speed", "mph"), ("Ball", "ball_speed", "mph"), ("Smash", "smash", "one"),
                 ("Launch", "launch", "deg"), ("Spin", "spin", "rpm"), ("Carry", "carry", "yd"), ("Distance", "total", "yd")],
}

UNIT_WORDS = {"ms": "m/s", "mph": "mph", "kmh": "km/h", "m": "m", "yd": "yds", "ft": "ft", "deg": "deg", "rpm": "rpm",
              "one": "", "mm": "mm", "in": "in", "s": "s"}

# name, words, style. `asks`: headings that must be asked about.
STYLES = [
    ("plain_brackets", "plain", {"units": "({})"}),
    ("plain_square", "plain", {"units": "[{}]"}),
    ("plain_comma", "plain", {"units": ", {}", "delimiter": ";"}),
    ("plain_row", "plain", {"units": "row"}),
    ("plain_row_brackets", "plain", {"units": "row", "row_form": "[{}]"}),
    ("plain_none_mph", "plain", {"units": None, "asks": ["Carry Distance"]}),
    ("plain_tabs", "plain", {"units": "({})", "delimiter": "\t"}),
    ("plain_crlf", "plain", {"units": "({})", "eol": "\r\n"}),
    ("plain_bom", "plain", {"units": "({})", "bom": True}),
    ("plain_utf16", "plain", {"units": "({})", "encoding": "utf-16"}),
    ("plain_latin", "plain", {"units": "({})", "encoding": "cp1252", "title": ["Übung für Märit"]}),
    ("plain_degree_sign", "plain", {"units": " {}", "unit_words": {"deg": "°"}}),
    ("plain_sides", "plain", {"units": "({})", "sides": "LR"}),
    ("plain_sides_tight", "plain", {"units": "({})", "sides": "LR", "side_blank": False}),
    ("plain_sides_first", "plain", {"units": "({})", "sides": ["L", "R"], "side_first": True}),
    ("plain_sides_words", "plain", {"units": "({})", "sides": ["left", "right"]}),
    ("plain_true_minus", "plain", {"units": "({})", "minus": "−"}),
    ("plain_cell_units", "plain", {"units": None, "cell_units": {
        "club_speed": " mph", "ball_speed": " mph", "launch": "°", "spin": " rpm", "attack": "°", "carry": " yds", "side": " yds"}}),
    ("plain_title", "plain", {"units": "({})", "title": ["Range session", "", "Thursday, bay 4"]}),
    ("plain_title_player", "plain", {"units": "({})", "title": ["Player: Runa Veld", "Date: 4 May 2031"], "player": "Runa Veld"}),
    ("plain_averages", "plain", {"units": "({})", "averages": ["Average", "Std. Dev."]}),
    ("plain_averages_by_club", "plain", {"units": "({})", "averages_by_club": True}),
    ("plain_repeated_headings", "plain", {"units": "({})", "repeat": True}),
    ("plain_blank_rows", "plain", {"units": "({})", "blank": True}),
    ("plain_group_rows", "plain", {"units": "({})", "group": "{}"}),
    ("plain_group_rows_named", "plain", {"units": "({})", "group": "Club: {}", "repeat": True}),
    ("plain_first_of_run", "plain", {"units": "({})", "first_of_run": True}),
    ("plain_missing_dashes", "plain", {"units": "({})", "missing": "--"}),
    ("plain_missing_na", "plain", {"units": "({})", "missing": "N/A"}),
    ("plain_missing_blank", "plain", {"units": "({})", "missing": ""}),
    ("plain_quoted", "plain", {"units": "({})", "quote": True}),
    ("plain_percent", "plain", {"units": "({})", "percent": ["smash"]}),
    ("short_brackets", "short", {"units": "({})"}),
    ("short_underscore", "short", {"units": "_{}"}),
    ("short_thousands", "short", {"units": "({})", "thousands": ",", "quote": True}),
    ("short_thousands_blank", "short", {"units": "({})", "thousands": " "}),
    ("short_row", "short", {"units": "row", "delimiter": ";"}),
    ("letters_decimal_comma", "letters", {"units": "({})", "delimiter": ";", "decimal": ","}),
    ("letters_comma_thousands", "letters", {"units": "({})", "delimiter": ";", "decimal": ",", "thousands": "."}),
    ("letters_quoted_comma", "letters", {"units": "({})", "decimal": ",", "quote": True}),
    ("long_brackets", "long", {"units": "({})"}),
    ("long_square", "long", {"units": " [{}]", "delimiter": ";", "decimal": ","}),
    ("long_words", "long", {"units": " in {}", "unit_words": {"kmh": "km/h", "m": "metres", "s": "seconds", "deg": "degrees"}}),
    ("strike_mm", "strike", {"units": "({})"}),
    ("strike_inches", "strike", {"units": "({})", "replace_units": {"mm": "in"}}),
    ("strike_inch_sign", "strike", {"units": "({})", "replace_units": {"mm": "in"}, "unit_words": {"in": '"'}, "quote": True}),
    ("strike_inch_sign_bare", "strike", {"units": "({})", "replace_units": {"mm": "in"}, "unit_words": {"in": '"'}}),
    ("camel_none", "camel", {"units": None, "asks": ["carryDistance"]}),
    ("camel_humps", "camel", {"units": "hump"}),
    ("own_file", "own", {"units": "own"}),
    ("own_labels", "labels", {"units": "({})"}),
    ("own_labels_row", "labels", {"units": "row"}),
    ("typos", "typos", {"units": "({})"}),
    ("others_iso", "others", {"units": "({})"}),
    ("others_dotted", "others", {"units": "({})", "time": "dotted", "delimiter": ";", "decimal": ","}),
    ("others_ampm", "others", {"units": "({})", "time": "ampm"}),
    ("others_words", "others", {"units": "({})", "time": "words"}),
    ("by_value", "by value", {"units": None, "asks": ["Carry"]}),
    ("by_value_units", "by value", {"units": "({})"}),
    ("metric_none", "strike", {"units": None, "asks": ["Carry"]}),
    ("caps_tight", "caps", {"units": "tight", "delimiter": ";", "decimal": ",", "thousands": "."}),
    ("caps_separator_line", "caps", {"units": "tight", "delimiter": ";", "title": ["sep="]}),
    ("v_and_h", "v and h", {"units": "[{}]"}),
    ("two_line_headings", "two lines", {"units": "({})", "quote": True}),
    ("groups_above", "grouped", {"units": "({})"}),
    ("groups_above_row", "grouped", {"units": "row", "title": ["Range session"]}),
    ("xlsx_groups_above", "grouped", {"units": "[{}]", "sheet": "shared"}),
    ("pipes", "short", {"units": "({})", "delimiter": "|"}),
    ("xlsx_shared", "plain", {"units": "({})", "sheet": "shared"}),
    ("xlsx_inline", "plain", {"units": "({})", "sheet": "inline"}),
    ("xlsx_title_averages", "short", {"units": "row", "sheet": "shared", "title": ["Range session"], "averages": ["Average"]}),
    ("xlsx_dates", "others", {"units": "({})", "sheet": "shared", "time": "serial"}),
    ("xlsx_formulas", "plain", {"units": "({})", "sheet": "formulas"}),
    ("xlsx_sheet_a_club", "plain", {"units": "({})", "sheet": "by club"}),
    ("ods_plain", "plain", {"units": "({})", "sheet": "ods"}),
    ("ods_row", "long", {"units": "row", "sheet": "ods"}),
]


def heading(text, unit, style):
    form = style["units"]
    if unit is None or unit == "one" or form in (None, "row", "own"):
        return text
    word = style.get("unit_words", {}).get(unit, UNIT_WORDS[unit])
    if form == "tight":
        return text + "(" + word.upper() + ")"
    if form == "hump":
        return text + {"mph": "MPH", "deg": "Deg", "rpm": "RPM", "yd": "Yards", "ft": "Feet"}[unit]
    if form.startswith("(") or form.startswith("["):
        form = " " + form
    return text + form.format(word)


def table(words, style):
    """Rows of cells, and what is to be expected of them."""
    columns = [(h, m, style.get("replace_units", {}).get(u, u)) for h, m, u in VOCABULARIES[words]]
    if style.get("group") or style.get("sheet") == "by club":
        columns = [c for c in columns if c[1] != "club"]
    shots = record()
    if style.get("group") or style.get("sheet") == "by club" or style.get("averages_by_club"):
        shots = record(laps=1)
    expected = {"columns": [], "asks": style.get("asks", []), "shots": []}
    heads = []
    for h, meaning, unit in columns:
        text = heading(h, unit, style)
        heads.append(text)
        group, bar, under = text.partition("|")
        if bar:
            text = under if group.startswith("(") else group + " " + under
        if meaning == "club":
            canonical = "build"
        elif meaning == "time":
            canonical = ["taken_at", "date"]
        elif meaning.startswith("text:"):
            canonical = ""
        elif unit is None:
            canonical = meaning
        else:
            suffix = SUFFIX.get(unit, unit)
            canonical = meaning + ("_" + suffix if suffix else "")
        expected["columns"].append([text.replace("\n", " "), canonical])
    rows = []
    for place, shot in enumerate(shots):
        row, kept = [], {"club": shot["club"]}
        for h, meaning, unit in columns:
            if meaning == "club":
                row.append(shot["club"] if not style.get("first_of_run") or place % 4 == 0 else "")
            elif meaning == "shot":
                row.append(str(shot["number"]))
            elif meaning == "time":
                row.append(clock(shot["minute"], style) if style.get("time") != "serial" else ("serial", shot["minute"]))
                kept["taken_at"] = moment(shot["minute"], style)
            elif meaning == "player":
                row.append("Runa Veld")
                kept["player"] = "Runa Veld"
            elif meaning == "note":
                row.append("low" if place == 2 else "")
            elif meaning.startswith("text:"):
                row.append(meaning[5:])
            else:
                missing = "missing" in style and (place % 5 == 3) and meaning in ("spin", "side")
                if missing:
                    row.append(style["missing"])
                    continue
                text, value = cell(shot["readings"][meaning], meaning, unit, style)
                if meaning in style.get("percent", []):
                    text = f"{round(value * 100)} %"
                    value = round(value * 100) / 100
                row.append(text)
                key = meaning + "_" + {"ms": "ms", "mph": "ms", "kmh": "ms", "m": "m", "yd": "m", "ft": "m", "deg": "deg",
                                       "rpm": "rpm", "one": "", "mm": "mm", "in": "mm", "s": "s"}[unit]
                kept[key.rstrip("_")] = value
        if style.get("player"):
            kept["player"] = style["player"]
        rows.append((shot, row, kept))
    expected["shots"] = [kept for _, _, kept in rows]
    return columns, heads, rows, expected


def lines_of(words, style):
    columns, heads, rows, expected = table(words, style)
    lines = [[t] for t in style.get("title", [])]
    if any("|" in h for h in heads):
        groups = [h.partition("|")[0].strip("()") if "|" in h else "" for h in heads]
        lines.append([g if i == 0 or groups[i - 1] != g else "" for i, g in enumerate(groups)])
        heads = [h.rpartition("|")[2] for h in heads]
    if style["units"] == "row":
        form = style.get("row_form", "{}")
        lines.append(heads)
        lines.append([form.format(UNIT_WORDS[u]) if u and UNIT_WORDS[u] else "" for _, _, u in columns])
    elif not style.get("group"):
        lines.append(heads)
    last = None
    for shot, row, _ in rows:
        if style.get("group") and shot["club"] != last:
            if last is not None:
                lines.append([""])
            lines.append([style["group"].format(shot["club"])])
            if last is None or style.get("repeat"):
                lines.append(heads)
        elif last is not None and shot["club"] != last:
            if style.get("repeat"):
                lines.append(heads)
            if style.get("blank"):
                lines.append(["" for _ in heads])
            if style.get("averages_by_club"):
                lines.append([f"{last} average"] + ["1.0" for _ in heads[1:]])
        last = shot["club"]
        lines.append(row)
    for name in style.get("averages", []):
        lines.append([name] + ["1.0" for _ in heads[1:]])
    return lines, expected


def text_file(path, lines, style):
    delimiter = style.get("delimiter", ",")
    eol = style.get("eol", "\n")

    def quoted(text):
        if style.get("quote") or delimiter in text:
            return '"' + text.replace('"', '""') + '"'
        return text

    text = eol.join(delimiter.join(quoted(c) for c in line) for line in lines) + eol
    data = text.encode(style.get("encoding", "utf-8"))
    if style.get("bom"):
        data = b"\xef\xbb\xbf" + data
    with open(path, "wb") as out:
        out.write(data)


def column_name(i):
    name = ""
    i += 1
    while i:
        i, r = divmod(i - 1, 26)
        name = chr(65 + r) + name
    return name


def is_number(text):
    try:
        float(text)
        return True
    except ValueError:
        return False


def xlsx(path, sheets, kind):
    """sheets: name → lines. kind: shared, inline or formulas."""
    shared = []

    def shared_index(text):
        if text not in shared:
            shared.append(text)
        return shared.index(text)

    parts = {}
    for n, (name, lines) in enumerate(sheets.items(), 1):
        xml = ['<?xml version="1.0" encoding="UTF-8"?><worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>']
        for r, line in enumerate(lines, 1):
            cells = []
            for c, text in enumerate(line):
                ref = f"{column_name(c)}{r}"
                if isinstance(text, tuple):
                    serial = 48337 + (14 * 60 + text[1]) / 1440 + 9 / 86400  # 2032-05-03 and so on
                    cells.append(f'<c r="{ref}" s="1"><v>{serial:.10f}</v></c>')
                elif text == "":
                    continue
                elif is_number(text):
                    formula = "<f>1+1</f>" if kind == "formulas" else ""
                    cells.append(f'<c r="{ref}">{formula}<v>{float(text)!r}</v></c>')
                elif kind == "inline":
                    cells.append(f'<c r="{ref}" t="inlineStr"><is><t>{escape(text)}</t></is></c>')
                elif kind == "formulas" and r > 1:
                    cells.append(f'<c r="{ref}" t="str"><f>A1</f><v>{escape(text)}</v></c>')
                else:
                    cells.append(f'<c r="{ref}" t="s"><v>{shared_index(text)}</v></c>')
            xml.append(f'<row r="{r}">{"".join(cells)}</row>')
        xml.append("</sheetData></worksheet>")
        parts[f"xl/worksheets/sheet{n}.xml"] = "".join(xml)
    names = list(sheets)
    parts["xl/workbook.xml"] = (
        '<?xml version="1.0" encoding="UTF-8"?><workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" '
        'xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets>'
        + "".join(f'<sheet name="{escape(n)}" sheetId="{i}" r:id="rId{i}"/>' for i, n in enumerate(names, 1)) + "</sheets></workbook>")
    parts["xl/_rels/workbook.xml.rels"] = (
        '<?xml version="1.0" encoding="UTF-8"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">'
        + "".join(f'<Relationship Id="rId{i}" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" '
                  f'Target="worksheets/sheet{i}.xml"/>' for i in range(1, len(names) + 1)) + "</Relationships>")
    parts["xl/styles.xml"] = (
        '<?xml version="1.0" encoding="UTF-8"?><styleSheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">'
        '<numFmts count="1"><numFmt numFmtId="170" formatCode="dd/mm/yyyy\\ hh:mm"/></numFmts>'
        '<cellXfs count="2"><xf numFmtId="0"/><xf numFmtId="170"/></cellXfs></styleSheet>')
    parts["xl/sharedStrings.xml"] = (
        '<?xml version="1.0" encoding="UTF-8"?><sst xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">'
        + "".join(f"<si><t>{escape(t)}</t></si>" for t in shared) + "</sst>")
    parts["[Content_Types].xml"] = (
        '<?xml version="1.0" encoding="UTF-8"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">'
        '<Default Extension="xml" ContentType="application/xml"/></Types>')
    write_zip(path, parts)


def ods(path, sheets):
    xml = ['<?xml version="1.0" encoding="UTF-8"?><office:document-content '
           'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" '
           'xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" '
           'xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0"><office:body><office:spreadsheet>']
    for name, lines in sheets.items():
        xml.append(f'<table:table table:name="{escape(name)}">')
        for line in lines:
            xml.append("<table:table-row>")
            for text in line:
                if text == "":
                    xml.append("<table:table-cell/>")
                elif is_number(text):
                    xml.append(f'<table:table-cell office:value-type="float" office:value="{float(text)!r}"><text:p>{text}</text:p></table:table-cell>')
                else:
                    xml.append(f'<table:table-cell office:value-type="string"><text:p>{escape(text)}</text:p></table:table-cell>')
            xml.append('<table:table-cell table:number-columns-repeated="1000"/></table:table-row>')
        xml.append('<table:table-row table:number-rows-repeated="1048000"><table:table-cell table:number-columns-repeated="1024"/></table:table-row></table:table>')
    xml.append("</office:spreadsheet></office:body></office:document-content>")
    write_zip(path, {"mimetype": "application/vnd.oasis.opendocument.spreadsheet", "content.xml": "".join(xml)})


def write_zip(path, parts):
    with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as out:
        for name, text in parts.items():
            info = zipfile.ZipInfo(name, (2031, 5, 4, 12, 0, 0))
            info.compress_type = zipfile.ZIP_DEFLATED
            out.writestr(info, text)


def main():
    for name, words, style in STYLES:
        lines, expected = lines_of(words, style)
        kind = style.get("sheet")
        if kind is None:
            path = os.path.join(HERE, name + ".csv")
            text_file(path, lines, style)
        elif kind == "ods":
            path = os.path.join(HERE, name + ".ods")
            ods(path, {"Session": lines, "Empty": []})
        elif kind == "by club":
            path = os.path.join(HERE, name + ".xlsx")
            _, heads, rows, _ = table(words, style)
            sheets = {}
            for shot, row, _ in rows:
                sheets.setdefault(shot["club"], [heads]).append(row)
            xlsx(path, sheets, "shared")
        else:
            path = os.path.join(HERE, name + ".xlsx")
            xlsx(path, {"Session": lines, "About": [["Made for tests"]]}, kind)
        if style.get("time") == "serial":
            for shot in expected["shots"]:
                shot["taken_at"] = None
        with open(os.path.join(HERE, name + ".expected.json"), "w") as out:
            # A shot a line, so that a change shows where it is.
            rows = ",\n".join(json.dumps(shot, ensure_ascii=False) for shot in expected["shots"])
            head = json.dumps({"columns": expected["columns"], "asks": expected["asks"]}, ensure_ascii=False)
            out.write(head[:-1] + ', "shots": [\n' + rows + "\n]}\n")


main()
