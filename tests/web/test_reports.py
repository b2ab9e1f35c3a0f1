"""Reports: real text, tagged, on one page; what was signed where something was signed."""

from collections.abc import Callable
from io import BytesIO
from typing import Any

import pytest
from flask.testing import FlaskClient
from pypdf import PdfReader

from dialback.book.report.handout import handout_paper
from dialback.book.report.week import shares_of
from dialback.book.report.words import days_text, in_short, week_span
from dialback.store.blocks import place_block
from dialback.store.database import connected
from dialback.store.models import Athlete
from tests.build import MONDAY, WEEK, document, movement, restricted, session, sets

ATHLETE = "/api/athletes/1"
HERE = f"{ATHLETE}/weeks/{WEEK}"
JARGON = ("push_pull", "baseline", "ratio", "tension", "findings", "volume load", "monotony")


def pdf(answer: Any) -> PdfReader:
    assert answer.status_code == 200, answer.get_json()
    assert answer.content_type == "application/pdf"
    return PdfReader(BytesIO(answer.data))


def text(reader: PdfReader) -> str:
    return " ".join(" ".join(page.extract_text() for page in reader.pages).split())


@pytest.fixture
def trained(client: FlaskClient, bring: Callable[..., Any]) -> FlaskClient:
    """Four weeks done, more presses and a heavier squat in the last, a plan for the next."""
    usual = [sets("Press", 4, load_kg=40), sets("Row", 4, load_kg=40), sets("Squat", 3, load_kg=60)]
    before = [session(back, *usual, title="Whole body") for back in (-21, -14, -7)]
    now = session(
        0,
        sets("Press", 8, load_kg=40),
        sets("Row", 4, load_kg=40, rpe=8),
        sets("Squat", 3, load_kg=62.5),
        title="Whole body",
        rpe=7,
        duration_min=50,
    )
    plan = [session(0, *usual, title="Whole body"), session(2, sets("Row", 4), title="Missed one")]
    following = [
        session(7, *usual[:2], sets("Squat", 4, load_kg=65), sets("Curl", 3), title="Whole body")
    ]
    assert bring(document([*before, now], [*plan, *following])).status_code == 201
    return client


def test_a_page_for_the_file(trained: FlaskClient) -> None:
    page = pdf(trained.get(f"{HERE}/report"))
    told = text(page)
    assert len(page.pages) == 1
    assert "Ada Test, week 41 of 2026" in told
    assert "5–11 October 2026" in told
    assert "Not signed; as it stood on 12 October 2026" in told
    assert "Sessions 2 1" in told
    for name in ("Press 8 × 10 reps, at 40 kg", "Row 4 × 10 reps, at 40 kg, RPE 8"):
        assert name in told
    assert "Squat: 4 sets instead of 3, 65 kg instead of 60 kg" in told
    assert "New: Curl, 3 sets." in told


def test_the_page_draws_what_it_says_and_whose_it_is(trained: FlaskClient) -> None:
    name = {"name": "Sallowmere Rowing Club"}
    assert trained.put("/api/house", json=name).status_code == 200
    told = text(pdf(trained.get(f"{HERE}/report")))
    assert told.startswith("Sallowmere Rowing Club Ada Test, week 41")
    assert "Mon Tue Wed Thu Fri Sat Sun" in told
    assert "12 weeks" in told


def test_a_side_with_nothing_is_said(client: FlaskClient, bring: Callable[..., Any]) -> None:
    assert bring(document([session(0, sets("Press", 4, load_kg=40))])).status_code == 201
    told = text(pdf(client.get(f"{HERE}/report")))
    assert "4 : 0 all : 0 0.7–1.1" in told


def test_a_muscle_that_is_allowed_nothing_is_on_the_page(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    rules = {"muscle_bands": {"calves": [0, 0]}}
    assert bring(document([session(0, sets("Press", 4))], rules=rules)).status_code == 201
    assert "Calves 0 0–0" in text(pdf(client.get(f"{HERE}/report")))


@pytest.mark.parametrize(
    ("values", "heights"),
    [
        ([], []),
        ([None, None], [None, None]),
        ([0.0, 0.0], [0.0, 0.0]),
        ([10.0, 10.0], [1.0, 1.0]),
        ([8.0, None, 10.0], [0.6, None, 1.0]),
        ([0.0, 5.0, 10.0], [0.0, 0.5, 1.0]),
    ],
)
def test_a_small_line_begins_at_half_of_its_highest(values: Any, heights: Any) -> None:
    assert shares_of(values) == heights


def test_it_is_tagged_with_title_and_language_in_our_own_fonts(trained: FlaskClient) -> None:
    for reader in ("coach", "athlete"):
        page = pdf(trained.get(f"{HERE}/report?for={reader}"))
        root = page.trailer["/Root"]
        assert root["/Lang"] == "en"
        assert bool(root["/MarkInfo"]["/Marked"])
        assert "/StructTreeRoot" in root
        assert page.metadata is not None
        assert "Ada Test" in str(page.metadata.title)
        fonts = {str(font["/BaseFont"]) for font in page.pages[0]["/Resources"]["/Font"].values()}
        assert all("SourceSerif4" in font.replace(" ", "") for font in fonts)


def test_what_was_signed_stays_on_paper(trained: FlaskClient) -> None:
    found = trained.get(f"{HERE}/sheet").get_json()["findings"][0]
    key = {name: found[name] for name in ("code", "subject", "measure")}
    body = {**key, "basis": "completed", "reason": "Meant as a push."}
    trained.post(f"{HERE}/acceptances", json=body)
    trained.put(f"{HERE}/signature", json={"name": "Runa Velk"})
    before = text(pdf(trained.get(f"{HERE}/report")))
    assert "Signed by Runa Velk on 12 October 2026" in before
    assert "Accepted: Meant as a push." in before
    trained.put("/api/rules", json={"chosen": {"indirect_credit": 1}, "revision": 1})
    after = text(pdf(trained.get(f"{HERE}/report")))
    assert "Since then: rules changed: credit of an indirect muscle" in after
    assert "The figures below are those that were signed." in after
    # The muscles, to the last figure, as they were.
    part = lambda told: told[told.index("Muscles,") : told.index("Bold:")]  # noqa: E731
    assert part(after) == part(before)


def test_a_hand_out_in_plain_words(trained: FlaskClient) -> None:
    page = pdf(trained.get(f"{HERE}/report?for=athlete"))
    told = text(page)
    assert len(page.pages) == 1
    assert "Ada Test: week 42" in told
    assert "You did 1 of the 2 sessions." in told
    assert "Heavier than in the weeks before: Squat 62.5 kg (60 kg before)." in told
    assert "Missed: Wednesday 7 October." in told
    assert "Heavier next week, if your form stays clean: Squat 65 kg." in told
    assert "Monday 12 October: Whole body" in told
    assert "Squat 4 × 10 at 65 kg" in told
    assert "see a doctor" in told
    for word in JARGON:
        assert word not in told


def test_what_hurt_comes_first_and_restrictions_keep_whose_word(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    athlete = restricted({"about": "pattern", "subject": "vertical_pull"})
    hurt = session(0, sets("Press", 3), pain=[{"exercise": "Press", "note": "left elbow"}])
    bring(document([session(-7, sets("Press", 6)), hurt], athlete=athlete))
    told = text(pdf(client.get(f"{HERE}/report?for=athlete")))
    watch = told[told.index("What to watch") :]
    assert "Press hurt on Monday (“left elbow”). If it comes back, stop" in watch
    assert "No vertical pull, as Runa Velk, physiotherapist said." in watch
    assert watch.index("hurt on Monday") < watch.index("No vertical pull")
    assert "Your coach will give you the plan." in told


def test_tempo_and_exertion_are_explained_where_the_plan_has_them(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    plain = session(7, sets("Press", 3, load_kg=20))
    bring(document([session(0, sets("Press", 3))], [plain]))
    assert "RPE" not in text(pdf(client.get(f"{HERE}/report?for=athlete")))
    slow = session(7, sets("Press", 3, load_kg=20, tempo="4-1-X-0", rpe=8))
    bring(document([session(0, sets("Press", 3))], [slow]), "?replace=true")
    told = text(pdf(client.get(f"/api/athletes/2/weeks/{WEEK}/report?for=athlete")))
    assert "lower in 4 s, hold 1 s at the bottom, lift as fast as you can, no pause at" in told
    assert "RPE 8: you could do two more reps" in told


def test_a_block_has_its_weeks_as_columns(trained: FlaskClient) -> None:
    assert trained.get(f"{HERE}/sheet").get_json()["in_block"] is False
    refused = trained.get(f"{HERE}/report?of=block")
    assert refused.status_code == 404
    assert "lies in no block" in refused.get_json()["detail"]
    first = WEEK.plus(-2)
    with connected():
        place_block(Athlete.get(), "Autumn", first, 4)
    assert trained.get(f"{HERE}/sheet").get_json()["in_block"] is True
    trained.put(f"{HERE}/signature", json={"name": "Runa Velk"})
    page = pdf(trained.get(f"{HERE}/report?of=block"))
    told = text(page)
    assert len(page.pages) == 1
    assert "Ada Test, Autumn" in told
    # The fourth week is not over.
    assert "week 39 40 41" in told
    assert "1 of 3 weeks signed" in told
    assert "Sets done 11 11 15" in told
    assert "Press 4 at 40 kg 8 at 40 kg" in told
    assert "Squat: 4 sets instead of 3" in told
    hand_out = text(pdf(trained.get(f"{HERE}/report?of=block&for=athlete")))
    assert "Ada Test: week 42" in hand_out
    assert "What went well in Autumn" in hand_out
    assert "You did 1 of the 2 sessions of 3 weeks." in hand_out
    assert "Heavier from the first week to the last: Squat 60 kg → 62.5 kg." in hand_out


def test_a_block_that_has_only_begun_is_refused(trained: FlaskClient) -> None:
    with connected():
        place_block(Athlete.get(), "Next", WEEK.plus(1), 4)
    refused = trained.get(f"{ATHLETE}/weeks/{WEEK.plus(2)}/report?of=block")
    assert refused.status_code == 404
    assert "no week of it is over yet" in refused.get_json()["detail"]


def test_an_empty_week_has_no_report(trained: FlaskClient) -> None:
    refused = trained.get(f"{ATHLETE}/weeks/{WEEK.plus(9)}/report")
    assert refused.status_code == 404
    assert "no session in 2026-W50" in refused.get_json()["detail"]


def test_names_are_text_and_never_markup(client: FlaskClient, bring: Callable[..., Any]) -> None:
    odd = 'A #panic("x") *b* _c_ $d$ @e <f> \\'
    bring(document([session(0, sets("Press", 3), title=odd)], athlete={"name": odd[:40]}))
    told = text(pdf(client.get(f"{HERE}/report")))
    assert "#panic" in told
    assert "*b* _c_ $d$ @e <f>" in told


@pytest.mark.parametrize(
    "name", ["Zoë → Ångström", "Ελένη", "Лев", "林小雨", "שרה", "Jo 🙂", "\u0e2a"]
)
def test_names_in_every_script(client: FlaskClient, bring: Callable[..., Any], name: str) -> None:
    bring(document([session(0, sets("Press", 3), title=name)], athlete={"name": name}))
    for reader in ("coach", "athlete"):
        page = pdf(client.get(f"{HERE}/report?for={reader}"))
        assert page.trailer["/Root"]["/Lang"] == "en"
        assert page.metadata is not None
        assert name in str(page.metadata.title)


def test_a_long_week_still_fits_on_a_page_or_goes_on(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    many = [movement(f"Lift number {at}", "horizontal_push", "chest") for at in range(120)]
    parts = [sets(one["name"], 1, load_kg=10 + at) for at, one in enumerate(many)]
    bring(document([session(0, *parts[:60])], exercises=many))
    assert len(pdf(client.get(f"{HERE}/report")).pages) == 1
    days = [session(day, *parts) for day in range(7)]
    bring(document(days, exercises=many), "?replace=true")
    page = pdf(client.get(f"/api/athletes/2/weeks/{WEEK}/report"))
    assert len(page.pages) > 1
    assert f"1 of {len(page.pages)}" in text(page)
    assert "Lift number 119" in text(page)


def test_the_largest_type_that_fits_is_taken() -> None:
    content: dict[str, Any] = {
        "title": "T",
        "span": "",
        "past": "",
        "well": [],
        "watch": [],
        "sessions": [],
        "words": [],
    }

    def largest(content: dict[str, Any]) -> float:
        page = PdfReader(BytesIO(handout_paper([content], []))).pages[0]
        found: list[float] = []
        page.extract_text(visitor_text=lambda text, _, __, ___, size: found.append(size))
        return max(found)

    crowded = {**content, "well": [f"line {at}" for at in range(60)]}
    assert largest(content) > largest(crowded)


def test_the_plans_of_several_are_one_pdf_a_page_each(
    trained: FlaskClient, bring: Callable[..., Any]
) -> None:
    other = document([], [session(7, sets("Row", 12, load_kg=30), title="Row day")])
    other["athlete"]["name"] = "Bo Marsh"
    assert bring(other).status_code == 201
    trained.post("/api/athletes", json={"text": "Cy Falk"})
    page = pdf(trained.get("/api/print?day=2026-10-14&athletes=2,1,3"))
    first, second, last = (one.extract_text() for one in page.pages)
    assert "Bo Marsh: week 42" in first
    assert "Ada Test: week 42" in second
    assert "12–18 October 2026" in " ".join(second.split())
    assert "minutes" in second
    assert "No plan to print for Cy Falk." in last
    # A first week is printed for somebody who has nothing behind them, by themselves as well.
    assert "Bo Marsh" in text(pdf(trained.get("/api/print?day=2026-10-14&athletes=2")))
    nobody = trained.get("/api/print?day=2026-10-14&athletes=3")
    assert nobody.status_code == 404
    assert "None of them has a plan for 2026-W42" in nobody.get_json()["detail"]
    assert trained.get("/api/print?day=2026-10-14&athletes=99").status_code == 404
    assert trained.get("/api/print?day=2026-10-14&athletes=1;2").status_code == 422


def test_a_week_that_still_runs_is_not_praised_on_the_plan_of_the_next(
    client: FlaskClient, bring: Callable[..., Any]
) -> None:
    bring(
        document(
            [session(7, sets("Row", 3))], [session(7, sets("Row", 3)), session(14, sets("Row", 3))]
        )
    )
    told = text(pdf(client.get("/api/print?day=2026-10-19&athletes=1")))
    assert "What to do" in told
    assert "What went well" not in told


def test_a_line_has_a_box_for_each_set() -> None:
    plain = {"inside": False, "unread": False, "part": False}
    lines = [{**plain, "text": "Row 4 × 8", "boxes": 4}, {**plain, "text": "Walk", "boxes": 0}]
    page = {"title": "T", "span": "", "past": "", "well": [], "watch": [], "words": []}
    drawn = lambda lines: len(  # noqa: E731
        PdfReader(
            BytesIO(
                handout_paper(
                    [{**page, "sessions": [{"head": "Monday", "boxes": False, "lines": lines}]}], []
                )
            )
        )
        .pages[0]
        .get_contents()
        .get_data()
        .split(b"\nS\n")
    )
    assert drawn(lines) - drawn(lines[1:]) == 4


@pytest.mark.parametrize(
    ("sets_", "told"),
    [
        (["Press 5 reps, at 20 kg"] * 3, "Press 3 × 5 reps, at 20 kg"),
        (["Press 5 reps, RPE 7", "Press 4 reps, RPE 9"], "Press 5, 4 reps, RPE 7–9"),
        (["Press 1 rep"], "Press 1 rep"),
        (["Plank 40 s"] * 2, "2 × Plank 40 s"),
        (["Press 5 reps, warm-up", "Press 5 reps"], "Press 5 reps; 1 warm-up set"),
        (["Press 5 reps", "Row 5 reps", "Press 5 reps"], "Press 5 reps; Row 5 reps; Press 5 reps"),
        (["Press 8 reps each side"] * 2, "Press 2 × 8 reps each side"),
        ([], ""),
    ],
)
def test_sets_in_short(sets_: list[str], told: str) -> None:
    assert in_short(sets_) == told


def test_days_say_no_more_than_differs() -> None:
    assert week_span(WEEK) == "5–11 October 2026"
    assert week_span(WEEK, 4) == "5 October–1 November 2026"
    assert days_text(MONDAY.replace(month=12, day=28), MONDAY.replace(2027, 1, 3)) == (
        "28 December 2026–3 January 2027"
    )
