"""Who may ask what: one table of every operation, and the guard that holds to it."""

from __future__ import annotations

from collections.abc import Mapping
from contextlib import suppress
from dataclasses import dataclass
from http import HTTPStatus
from pathlib import Path
from typing import Any, Final

from flask import Flask, Response, current_app, g, request, session
from flask_login import LoginManager, UserMixin, current_user, login_user, logout_user
from peewee import DatabaseError

from dialback.core.roles import RIGHTS, Right
from dialback.store.accounts import Account, is_any, signing_key
from dialback.store.database import connected
from dialback.store.devices import (
    STAYS,
    Device,
    end_session,
    is_session,
    note_seen,
    open_session,
    signed_in,
)
from dialback.store.journal import Actor, act_as
from dialback.web.desk import desk
from dialback.web.devices import Cookies, device_words, hand_out, known_secret, remember
from dialback.web.problems import RefusedError, problem
from dialback.work.passwords import nobodys


@dataclass(frozen=True, slots=True)
class Allowed:
    """Who may ask for an operation: whoever has a right over everybody.

    ``own``: an athlete too, of what is that athlete's. Without a right: ``anybody`` before signing
    in, else whoever is signed in. What ``asks`` is posted only because the question is long: it
    stores nothing.
    """

    right: Right | None = None
    own: bool = False
    anybody: bool = False
    asks: bool = False


def _each(allowed: Allowed, names: str) -> dict[str, Allowed]:
    return dict.fromkeys(names.split(), allowed)


OPERATIONS: Final[Mapping[str, Allowed]] = {
    **_each(Allowed(anybody=True), "who_is_it sign_in open_door health openapi_document page"),
    **_each(
        Allowed(),
        "sign_out change_own_password own_devices sign_out_there draw_second_factor "
        "begin_second_factor end_own_second_factor weight_unit name_of_house notation",
    ),
    **_each(
        Allowed("read", own=True),
        "frame log_week movement_names report block_calendar floor_day floor_run sensor_stream "
        "session_on_paper",
    ),
    **_each(
        Allowed("read"),
        "roster week_sheet figure_trail schools block block_text since_the_last_block "
        "long_line line_of_a_movement "
        "written_week list_care list_decisions list_restrictions list_maxima list_goals "
        "athlete_rules house_rules "
        "movements movement_cues list_own_cues kit "
        "list_templates signed_week journal print_plans squad_week",
    ),
    **_each(
        Allowed("log", own=True),
        "keep_log remove_log restore_log decide_version read_done amend_set why_missed",
    ),
    **_each(Allowed("log"), "save_own_cue"),
    **_each(
        Allowed("plan"),
        # People and what is known of them.
        "take_people_on describe_athlete remove_athlete restore_athlete list_archived "
        "export_everything export_one export_csv export_xlsx add_restriction lift_restriction "
        "restore_restriction add_caution end_caution restore_caution add_weighing remove_weighing "
        "add_maximum remove_maximum set_goal remove_goal restore_goal "
        "make_door withdraw_door list_accounts "
        # Plans.
        "change_block remove_block lay new_block take_text publish_weeks "
        "publish_for_squad squad_proposal "
        "keep_template lay_template remove_template restore_template "
        "open_draft save_draft publish_draft reset_draft add_text save_text make_days "
        "learn_habit forget_habit "
        "remove_session restore_session row_line text_rows "
        # Judging, rules, the house.
        "mark_week decide decline_steps end_decision restore_decision accept_finding accept_cause "
        "reopen_finding reopen_cause sign_week unsign_week see_pain "
        "decline_offer save_athlete_rules save_house_rules save_school remove_school "
        "add_movement add_movement_like save_movement save_cues remove_movement give_name "
        "save_kit begin_kit choose_unit name_the_house made_up_club load_the_club "
        "undo_change redo_change "
        # Files.
        "import_one list_imports undo_one_import read_sheet sheet_state "
        "cancel_sheet preview_sheet store_the_sheet list_copies",
    ),
    **_each(
        Allowed("plan", asks=True),
        # People, movements, rules, files.
        "read_people look_before_import movement_effect name_effect preview_rules preview_for_all "
        "rows_left_out "
        # Plans.
        "propose_week audit_a_draft draft_changes turn_dial draft_movements next_in_draft "
        "take_next_steps dial_notches propose put_in_draft take_steps check_text "
        "draft_for_squad propose_for_squad stop_squad_proposal",
    ),
    **_each(
        Allowed("run the house"),
        "make_account change_role set_password remove_account end_second_factor delete_for_good "
        "remove_the_club",
    ),
}
"""Every operation of the API by name, with who may ask for it."""

ASKING: Final = frozenset(name for name, allowed in OPERATIONS.items() if allowed.asks)
"""What is posted and stores nothing."""

ASKS_ITSELF: Final = frozenset({"floor_day", "floor_run", "sensor_stream"})
"""Open to an athlete without naming whom they are about: the place shows the own alone."""

PLACES: Final = frozenset(
    {
        "Roster",
        "Squad",
        "Floor",
        "Movements",
        "Kit",
        "House rules",
        "Files",
        "People",
        "Journal",
        "Block",
        "Write",
        "Log",
        "Week sheet",
        "Season",
        "Dial",
        "Profile",
    }
)
"""Where in the interface something was done, as the journal has it."""
PLACE_HEADER: Final = "X-Place"
WITHOUT_SECOND: Final = frozenset(
    {
        "who_is_it",
        "sign_out",
        "draw_second_factor",
        "begin_second_factor",
        "name_of_house",
        "change_own_password",
        "own_devices",
        "sign_out_there",
    }
)
"""All that is open to whoever still has to take a second factor on."""
_WITH_SECOND: Final = frozenset({"owner", "coach"})
"""Roles that need a second factor where the house asks for one."""


class _User(UserMixin):  # type: ignore[misc]
    """An account on a device, as the sign-in library knows it: told by the device's secret."""

    def __init__(self, account: Account, device: Device, secret: str) -> None:
        self.account = account
        self.device = device
        self._secret = secret

    def get_id(self) -> str:
        """What stands in the cookie."""
        return self._secret


@dataclass(frozen=True, slots=True)
class Visitor:
    """Who asks. Where nobody has an account, whoever is at the desk may do everything."""

    account: Account | None
    is_open: bool
    device: int | None = None
    """The number of the device at hand, where it is signed in."""

    @property
    def needs_second(self) -> bool:
        """Whether they may do nothing before they have taken a second factor on."""
        return (
            current_app.config["SECOND_FACTOR"]
            and self.account is not None
            and self.account.role in _WITH_SECOND
            and self.account.second is None
        )

    @property
    def name(self) -> str:
        """The name that stands in the journal."""
        return "" if self.account is None else self.account.name

    def has(self, right: Right) -> bool:
        """Whether they have a right over everybody."""
        if self.account is None:
            return self.is_open
        return self.account.role in RIGHTS[right]

    def sees(self, athlete: int) -> bool:
        """Whether they may see what is an athlete's."""
        return self.has("read") or self.is_of(athlete)

    def is_of(self, athlete: int) -> bool:
        """Whether they are that athlete."""
        return self.account is not None and self.account.athlete == athlete


def visitor() -> Visitor:
    """Who asks, found out once a request."""
    found: Visitor | None = g.get("visitor")
    if found is None:
        user = current_user if current_user.is_authenticated else None
        account = user.account if user is not None else None
        is_open = account is None and not current_app.config["BEYOND"] and not is_any()
        device = user.device.number if user is not None else None
        found = g.visitor = Visitor(account, is_open, device)
    return found


def come_in(account: Account) -> None:
    """Sign this device in, by secrets that nobody has held before."""
    today = desk().today()
    if (here := visitor()).account is not None and here.device is not None:
        # Whoever comes in where somebody is signed in takes that one's place.
        end_session(here.account.number, here.device)
    held = open_session(account.number, device_words(), known_secret(), today)
    found = signed_in(held.session, today)
    assert found is not None  # noqa: S101 - it was opened a line ago
    session.clear()
    session.permanent = True
    login_user(_User(*found, held.session))
    session["day"] = today.isoformat()
    remember(held.known)
    g.pop("visitor", None)


def is_withdrawn() -> bool:
    """Whether this device holds a session that somebody has ended."""
    held = session.get("_user_id")
    return held is not None and not is_session(held)


def go_out() -> None:
    """End this device's session, on the server too."""
    who = visitor()
    if who.account is not None and who.device is not None:
        end_session(who.account.number, who.device)
    logout_user()
    session.clear()
    g.pop("visitor", None)


def settle(app: Flask, data: Path, *, beyond: bool, second_factor: bool) -> None:
    """Whose key signs the cookies, and how much is asked of whom.

    ``beyond``: the house is never open without accounts. ``second_factor``: whoever changes plans
    or runs the house needs one.
    """
    # Made before anybody asks: the first wrong name would take twice as long as a wrong password.
    nobodys()
    app.config.update(
        SECRET_KEY=signing_key(data),
        BEYOND=beyond,
        SECOND_FACTOR=second_factor,
    )


def register(app: Flask) -> None:
    """Let nobody by who may not ask."""
    app.config.update(
        SESSION_COOKIE_SAMESITE="Lax",
        SESSION_REFRESH_EACH_REQUEST=False,
        PERMANENT_SESSION_LIFETIME=STAYS,
    )
    app.session_interface = Cookies()
    app.after_request(hand_out)
    login = LoginManager(app)
    login.session_protection = None

    @login.user_loader  # type: ignore[untyped-decorator]
    def _load(kept: str) -> _User | None:
        found = signed_in(kept, desk().today())
        return None if found is None else _User(*found, kept)

    @app.before_request
    def _guard() -> Response | None:
        name = (request.endpoint or "page").rpartition(".")[2]
        if name in ("page", "openapi_document"):
            return None
        # What nobody has thought of fails here: it is open to nobody.
        allowed = OPERATIONS[name]
        refusal = None if allowed.anybody else _refusal(allowed, name, request.view_args or {})
        if refusal is None:
            _remember_who()
        return refusal


def _refusal(allowed: Allowed, name: str, args: Mapping[str, Any]) -> Response | None:
    """Why whoever asks may not; ``None`` if they may."""
    who = visitor()
    if who.account is None and not who.is_open:
        return problem(
            HTTPStatus.UNAUTHORIZED, "Sign in first: this house has accounts.", "signed-out"
        )
    if who.needs_second and name not in WITHOUT_SECOND:
        return problem(
            HTTPStatus.FORBIDDEN,
            "This house asks owners and coaches for a second factor: set "
            "yours up under People first.",
            "second-factor-first",
        )
    if allowed.right is None or who.has(allowed.right):
        return None
    own = name in ASKS_ITSELF or who.is_of(args.get("athlete_id", -1))
    if allowed.own and who.account is not None and who.account.role == "athlete" and own:
        return None
    role = who.account.role if who.account is not None else ""
    return problem(
        HTTPStatus.FORBIDDEN,
        f"You are signed in as {role}, and this is not yours to see or change. Ask the "
        "coach, or sign in as someone else.",
        "not-allowed",
    )


def _remember_who() -> None:
    """Whoever changes something in this request stands in the journal."""
    place = request.headers.get(PLACE_HEADER, "")
    known = place if place in PLACES else "API"
    act_as(Actor(visitor().name, known, desk().today()))
    today = desk().today().isoformat()
    if visitor().account is not None and session.get("day") != today:
        # The cookie lives on from the day it was last used.
        session["day"] = today
    if current_user.is_authenticated and current_user.device.seen < desk().today():
        g.first_today = current_user.device.number


def note_first_of_the_day() -> None:
    """Note that a device was here today, once the answer's own reading has ended."""
    device: int | None = g.pop("first_today", None)
    if device is not None:
        with suppress(DatabaseError), connected():
            # Busy: its next request notes it.
            note_seen(device, desk().today())


def only_seen(athlete: int) -> None:
    """Refuse what is somebody else's. Raises ``RefusedError``."""
    if not visitor().sees(athlete):
        raise RefusedError(
            HTTPStatus.FORBIDDEN, "not-allowed", "This is another athlete's: open your own."
        )
