"""The movements that ship: every pattern, every muscle, plain and plausible."""

from dialback.core.movements import fold
from dialback.core.tempo import parse_tempo
from dialback.core.vocabulary import MUSCLES, PATTERNS
from dialback.demo.programmes import LOADS
from dialback.library import library, shipped_cues

EBBEN = {
    "Press-up": 0.64,
    "Press-up, hands raised 30 cm": 0.55,
    "Press-up, hands raised 60 cm": 0.41,
    "Press-up, feet raised 30 cm": 0.70,
    "Press-up, feet raised 60 cm": 0.74,
    "Press-up, knees down": 0.49,
}


def test_every_pattern_and_every_muscle_is_trained() -> None:
    movements = library()
    assert len(movements) >= 160
    assert {one.pattern for one in movements} == set(PATTERNS)
    direct = {
        muscle for one in movements for muscle, role in one.muscles.items() if role == "direct"
    }
    assert direct == set(MUSCLES)


def test_names_are_unique_and_rows_make_sense() -> None:
    movements = library()
    assert len({fold(one.name) for one in movements}) == len(movements)
    for one in movements:
        assert "direct" in one.muscles.values() or not one.counted, one.name
        assert one.tempo is None or not one.isometric, one.name
        if one.tempo:
            assert 1 <= parse_tempo(one.tempo).cycle <= 8, one.name
        elif one.counted:
            assert one.isometric, one.name


def test_shares_of_body_weight() -> None:
    shares = {one.name: one.bodyweight_share for one in library()}
    assert {name: shares[name] for name in EBBEN} == EBBEN
    assert shares["Pull-up"] == shares["Dip"] == shares["Handstand press"] == 1.0
    assert set(LOADS) <= set(shares)


def test_levels_lead_to_each_other_and_get_harder() -> None:
    by_name = {one.name: one for one in library()}
    leveled = [one for one in by_name.values() if one.harder]
    assert len(leveled) > 15
    for one in leveled:
        above = by_name[one.harder or ""]
        assert above.easier == one.name
        if one.bodyweight_share and above.bodyweight_share and one.pattern == above.pattern:
            assert above.bodyweight_share >= one.bodyweight_share, one.name
    for one in by_name.values():
        assert one.easier is None or by_name[one.easier].harder == one.name


def test_no_alias_is_the_name_or_the_alias_of_another() -> None:
    names = {fold(one.name) for one in library()}
    aliases = [fold(alias) for one in library() for alias in one.aliases]
    assert len(set(aliases)) == len(aliases) >= 25
    assert not names & set(aliases)


def test_every_strength_movement_has_words_to_say() -> None:
    for one in library():
        cues = shipped_cues(one)
        assert bool(cues.move and cues.set_up and cues.stop_when) == one.counted, one.name
        for _, words in cues.said():
            # What follows "stop when" goes on in its sentence; no line ends with a full stop.
            assert not words.endswith("."), words
            assert words != cues.stop_when or words[0].islower(), words
