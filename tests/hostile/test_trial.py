"""The small part of ``make trial``: killed servers, many hands, readers beside an import."""

import subprocess
import sys
from pathlib import Path

TRIAL = Path(__file__).parents[2] / "scripts" / "trial.py"


def test_nothing_that_was_acknowledged_is_lost() -> None:
    done = subprocess.run(
        [sys.executable, str(TRIAL), "--small"],
        capture_output=True,
        text=True,
        timeout=1200,
        check=False,
    )
    assert done.returncode == 0, done.stdout + done.stderr
    assert done.stdout.endswith("0 wrong\n")
