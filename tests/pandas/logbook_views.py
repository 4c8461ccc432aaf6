"""A logbook's shots in three lines of pandas, as docs/formats.md shows them. Without pandas there is nothing to try.

    python3 logbook_views.py knotcount-cli SHOTS.csv
"""
import os
import sqlite3
import subprocess
import sys
import tempfile

try:
    import pandas
except ImportError:
    sys.exit(77)

with tempfile.TemporaryDirectory() as folder:
    book = os.path.join(folder, "shop.knotbook")
    subprocess.run([sys.argv[1], "import", sys.argv[2], book], check=True, stdout=subprocess.DEVNULL)
    shots = pandas.read_sql("SELECT * FROM shots WHERE status = 'counted'", sqlite3.connect(book))
    means = shots.groupby("club")["carry_m"].mean()
    file = pandas.read_csv(sys.argv[2])
    wanted = file.groupby("build")["carry_m"].mean()
    assert len(shots) == len(file), (len(shots), len(file))
    assert (means - wanted).abs().max() < 1e-9, (means, wanted)
