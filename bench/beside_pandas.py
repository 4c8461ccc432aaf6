"""100,000 shots of 15 measurements from CSV and XLSX into a logbook, beside pandas' reading of the same file and to_sql.

    python3 bench/beside_pandas.py build/release/src/knotcount-cli

Prints the processor time of each as a whole process, and their ratio; both run in turn, five times.
"""
import os
import random
import resource
import statistics
import subprocess
import sys
import tempfile

NUMBERS = [("Ball Speed (m/s)", 61, 1.2, 1), ("Club Speed (m/s)", 42, 0.8, 1), ("Launch Angle (°)", 13, 1, 1),
           ("Launch Direction (°)", 0, 2, 1), ("Spin Rate (rpm)", 2900, 300, 0), ("Spin Axis (°)", 0, 4, 1),
           ("Carry (m)", 205, 8, 1), ("Total (m)", 221, 9, 1), ("Side (m)", 0, 10, 1), ("Height (m)", 28, 3, 1),
           ("Descent Angle (°)", 40, 3, 1), ("Attack Angle (°)", 1, 1, 1), ("Club Path (°)", 1, 2, 1),
           ("Face Angle (°)", 0, 2, 1), ("Smash Factor", 1.45, 0.02, 3)]
WITH_PANDAS = """
import pandas, sqlite3, sys
connection = sqlite3.connect(sys.argv[2])
pandas.read_csv(sys.argv[1]).to_sql("shot", connection, index=False)
connection.commit()
"""


def write_shots(path, rows):
    rng = random.Random(7)
    with open(path, "w", encoding="utf-8") as file:
        file.write(",".join(["Club", "Time"] + [name for name, *_ in NUMBERS]) + "\n")
        for i in range(rows):
            when = f"2026-{1 + i // 9000:02d}-{1 + i // 400 % 28:02d} {8 + i // 60 % 10:02d}:{i % 60:02d}:00"
            cells = [["Fern", "Reed", "Alder", "Birch"][i // 25 % 4], when]
            file.write(",".join(cells + [f"{rng.gauss(at, sd):.{places}f}" for _, at, sd, places in NUMBERS]) + "\n")


def seconds_of(command):
    before = resource.getrusage(resource.RUSAGE_CHILDREN)
    subprocess.run(command, check=True, stdout=subprocess.DEVNULL)
    after = resource.getrusage(resource.RUSAGE_CHILDREN)
    return after.ru_utime + after.ru_stime - before.ru_utime - before.ru_stime


XLSX_WITH_PANDAS = """
import pandas, sqlite3, sys
connection = sqlite3.connect(sys.argv[2])
pandas.read_excel(sys.argv[1]).to_sql("shot", connection, index=False)
connection.commit()
"""


def main():
    times = 5
    with tempfile.TemporaryDirectory() as folder:
        shots = os.path.join(folder, "shots.csv")
        write_shots(shots, 100_000)
        subprocess.run([sys.executable, "-c", "import pandas, sys; "
                        "pandas.read_csv(sys.argv[1]).to_excel(sys.argv[1][:-3] + 'xlsx', index=False)", shots],
                       check=True)
        for kind, code in (("csv", WITH_PANDAS), ("xlsx", XLSX_WITH_PANDAS)):
            file = shots[:-3] + kind
            ours, theirs = [], []
            for i in range(times):
                ours.append(seconds_of([sys.argv[1], "import", file, os.path.join(folder, f"{kind}{i}.knotbook")]))
                theirs.append(seconds_of([sys.executable, "-c", code, file, os.path.join(folder, f"{kind}{i}.sqlite")]))
            a, b = statistics.median(ours), statistics.median(theirs)
            print(f"{kind} to logbook: {a:.2f} s; pandas and to_sql: {b:.2f} s; ratio {a / b:.2f} (medians of {times})")


main()
