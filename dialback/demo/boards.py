"""Sessions of the coming block as the coach wrote them on the board, one for each rower.

Together they have every form of the notation.
"""

from __future__ import annotations

from typing import Final

Board = tuple[str, str]
"""A title and a text."""

BOARDS: Final[dict[str, Board]] = {
    "Maro Veldt": ("Pull first", """\
warm-up:
Arm circles 30 s
Band pull-apart 2 × 15, band light

# He rows before he presses, all block long.
main A:
Bent-over row 5 × 6 at 57.5 kg, rest 140 s
Bench press 3 × 9–13 at 55 kg, RPE 8, rest 120 s
rest 3 min

main B:
4 rounds, 50 s on, 10 s off, 75 s between rounds:
  Dumbbell bench press at 2 × 20 kg
  Bench-supported row at 2 × 20 kg

cool-down:
Chest stretch 60 s each side
"""),
    "Tess Hallorin": ("Back in, easy", """\
warm-up:
Hip opener 60 s

main:
Goblet squat 3 × 8 at 14 kg, rest 90 s, RPE 6
Press-up, hands raised 30 cm 3 × 8, rest 60 s
Seated cable row 3 × 10 at 35 kg, rest 75 s

finisher:
3 rounds, 25 s on, 35 s off:
  Step-touch
  Front plank, knees down
"""),
    "Ondra Pell": ("By the clock", """\
main A:
4 rounds, 35 s on, 25 s off, 90 s between rounds:
  Goblet squat at 18 kg
  Press-up
  Band row band strong
  Kettlebell swing at 16 kg
  Skipping

main B:
2 rounds, 25 s off:
  Press-up 25 s / harder 50 s
  Inverted row, knees bent 25 s / Inverted row 50 s
"""),
    "Lisbet Arnaud": ("Legs and trunk, elbow spared", """\
main A:
Back squat 7 at 35 kg, warm-up
Back squat 4 at 55 kg, warm-up, then 2 at 65 kg, warm-up, then 4 × 4 at 70 kg, rest 150 s
Romanian deadlift 3 × 8 at 55 kg, tempo 3-1-1-0, rest 120 s
rest 2 min

main B:
Front plank 4 × 35 s, rest 40 s
Wall sit 3 × 45 s, rest 60 s
Side plank 3 × 30 s each side, rest 30 s
"""),
    "Jory Castelin": ("Home, with bands", """\
main:
4 rounds, 60 s between rounds:
  Band press-up 9, band medium
  Band row 9, band strong
  Body-weight squat 9
  Band curl 9, band medium
  Band press-down 9, band medium
  Glute bridge 9

finisher:
Press-up 11 + 5 + 2, rest 90 s
"""),
    "Wendel Okoro-Fay": ("Slow, in pounds", """\
main A:
Bench press 4 × 5 at 155 lb, tempo 4-1-2-0, rest 150 s
Bent-over row 4 × 6 at 135 lb, tempo 3-1-1-1, rest 120 s

main B:
# Three styles, one after the other.
Dumbbell curl 40 s at 2 × 25 lb
Dumbbell curl 40 s at 2 × 20 lb, tempo 4-0-4-0, then 25 s at 2 × 15 lb, half range (pulses)
Lateral raise 3 × 12 at 2 × 15 lb, rest 60 s
"""),
    "Mirren Sollas": ("Side by side", """\
main:
Split squat 3 × 9 left at 2 × 10 kg, rest 30 s, then 3 × 9 right at 2 × 10 kg, rest 60 s
One-arm dumbbell row 3 × 11 each side at 16 kg, rest 60 s
Half-kneeling one-arm press 3 × 8 each side at 10 kg, rest 60 s
Dumbbell overhead press 3 × 8 alternating at 10 kg, rest 75 s (hold the other arm up)
Dead bug 3 × 10 alternating, rest 30 s
"""),
    "Anselm Brook": ("Ladder day", """\
warm-up:
Arm circles 30 s

main A:
ladder 4, 7, 10, 60 s between rounds:
  Goblet squat at 20 kg
  Press-up
  Kettlebell swing at 20 kg
  Bent-over row at 42.5 kg

main B:
8 bouts, 20 s on, 10 s off:
  Rowing machine, intervals
  Body-weight squat
"""),
    "Pia Dresner": ("Heavy, then ranges", """\
main A:
Deadlift 4 × 4 at 75 kg, rest 180 s, RPE 8
Bench press 4 × 6 at 47.5 kg, rest 120 s

main B:
Dumbbell curl 2 × 6 low half + 6 high half + 6 full at 2 × 8 kg, rest 75 s
Pull-up 3 × 6 help 15 kg, rest 90 s
Pull-up 2 × 3, tempo 5-0-0-0, rest 90 s (lower only, step up again)
"""),
    "Edda Brimlow": ("Find the feet again", """\
main:
Goblet squat 3 × 8–10 at 16 kg, RPE 6, rest 90 s
Press-up 3 × 8, rest 60 s
Bench-supported row 3 × 10 at 2 × 12 kg, rest 60 s
Hip thrust 2 × 10, rest 60 s
Front plank 2 × 30 s, rest 45 s
"""),
    "Calder Nuys": ("Fewer hinges", """\
main A:
Front squat 4 × 6 at 65 kg, rest 140 s
Step-up 3 × 8 each side at 2 × 14 kg, rest 75 s

main B, pre-exhaust:
Knee extension 3 × 15, rest 45 s
Leg press 3 × 10 at 140 kg, rest 90 s

finisher:
8 min of 2 Kettlebell swing + Goblet squat + Dumbbell overhead press, for time
"""),
    "Yara Quill": ("Upper body", """\
main:
Press-up 3 × 9, hold 8 s, rest 75 s
Dumbbell curl 3 × 10 at 2 × 8 kg, tempo 3-2-1-0, rest 60 s
Lat pull-down 3 × 10 at 45 kg, rest 75 s
Press-up to failure 12 (write down how many)
Farmer's carry 4 × 30 s at 2 × 20 kg, rest 45 s
"""),
    "Bram Osterley": ("Enough is enough", """\
main:
Back squat 3 × 5 at 95 kg, rest 150 s
Overhead press 4 × 6 at 42.5 kg, rest 120 s
3 rounds, 60 s between rounds:
  2 Kettlebell swing + Goblet squat + Dumbbell overhead press 8 at 16 kg
  Face pull 15 at 30 kg

cool-down:
Hamstring stretch 45 s each side
Calf stretch 45 s each side
"""),
}  # fmt: skip

ROOM: Final = {
    "sensor": True,
    "dumbbells_kg": [*range(2, 11), *range(12, 42, 2), 6.804, 9.072, 11.34],
    "kettlebells_kg": [8, 12, 16, 20, 24, 28],
    "bars_kg": [10, 20],
    "plates": [
        {"kg": 20, "pairs": 4}, {"kg": 10, "pairs": 2}, {"kg": 5, "pairs": 2},
        {"kg": 2.5, "pairs": 2}, {"kg": 1.25, "pairs": 1},
    ],
    "stacks": [
        {"name": "cable stack", "least_kg": 5, "step_kg": 5, "top_kg": 90},
        {"name": "leg press", "least_kg": 20, "step_kg": 5, "top_kg": 220,
         "movements": ["Leg press", "One-leg press"]},
        {"name": "leg curl", "least_kg": 5, "step_kg": 5, "top_kg": 70,
         "movements": ["Leg curl", "Seated leg curl"]},
    ],
    "bands": ["light", "medium", "strong"],
}  # fmt: skip
"""What the club's room has."""
