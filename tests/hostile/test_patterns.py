"""Every pattern that sees foreign text takes time in proportion to its length."""

import ast
import importlib
import inspect
import pkgutil
import re
import time
from collections.abc import Callable, Iterator

import pytest

import dialback
from dialback.core.movements import MovementTable
from dialback.core.notation import grammar, read
from dialback.core.notation.items import forget_lines
from dialback.core.notation.wording.heads import Head
from dialback.core.notation.wording.rule import Rule
from dialback.library import library

LENGTH = 6_000
"""Longer than any text that is let through to a pattern: what is linear here is harmless there."""
PIECES = (
    " ",
    "\t",
    "1",
    "1,",
    "1 ",
    "a",
    "a ",
    "main ",
    "-",
    "- ",
    ". ",
    "rest ",
    "x ",
    "1 x ",
    "(",
    ",",
    "1-",
    "1:",
    "+ ",
    "'",
    "/",
    "per rep ",
    "1 kg ",
    "1, ",
    "[",
    "\u00a0",
    "\n",
    "each ",
    "of ",
)
"""What a pattern with overlapping repeats stumbles over, again and again."""
ENDS = ("!", "q")
RATIO = 2.5
NOTICED_S = 0.004
"""Below this no ratio says anything: it is the clock that is measured."""


def patterns() -> Iterator[tuple[str, re.Pattern[str]]]:
    """All patterns of the package that have a name."""
    for info in pkgutil.walk_packages(dialback.__path__, "dialback."):
        if ".migrations" in info.name:
            continue
        module = importlib.import_module(info.name)
        for name, value in vars(module).items():
            for at, found in enumerate(value if isinstance(value, (list, tuple)) else (value,)):
                several = found if isinstance(found, tuple) else (found,)
                for each in several:
                    one = each.pattern if isinstance(each, (Rule, Head)) else each
                    if isinstance(one, re.Pattern) and isinstance(one.pattern, str):
                        yield f"{info.name}.{name}[{at}]", one


def in_line() -> Iterator[tuple[str, re.Pattern[str]]]:
    """Patterns that stand in the middle of a function, made of constants of their module."""
    for info in pkgutil.walk_packages(dialback.__path__, "dialback."):
        if ".migrations" in info.name or info.ispkg:
            continue
        module = importlib.import_module(info.name)
        for node in ast.walk(ast.parse(inspect.getsource(module))):
            asks = isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute)
            if not asks or getattr(node.func.value, "id", "") != "re" or not node.args:
                continue
            if node.func.attr in ("escape", "compile"):
                continue
            try:
                text = eval(ast.unparse(node.args[0]), vars(module))
            except NameError:
                # Made of what is searched for, and that is escaped.
                assert "escape" in ast.unparse(node.args[0]) or info.name in MADE_OF_WORDS
                continue
            yield f"{info.name}:{node.lineno}", re.compile(text, re.IGNORECASE)


def of_the_lexer() -> Iterator[tuple[str, re.Pattern[str]]]:
    """The terminals of both grammars, as the lexer has them."""
    for which in (grammar.PRESCRIPTION, grammar.HEAD):
        for terminal in which.terminals:
            flags = re.IGNORECASE if "i" in terminal.pattern.flags else re.NOFLAG
            yield f"grammar.{terminal.name}", re.compile(terminal.pattern.to_regexp(), flags)


MADE_OF_WORDS = {
    "dialback.book.logsheet.cells",
    "dialback.core.notation.names",
}
"""Where a pattern is made of separators or words of our own."""
FOUND = {
    (one.pattern, one.flags): (name, one)
    for name, one in (*patterns(), *in_line(), *of_the_lexer())
}


def once(call: Callable[[str], object], text: str) -> float:
    """Of this thread alone, in seconds: whatever else the machine does has no part in it."""
    start = time.thread_time()
    call(text)
    return time.thread_time() - start


def took(call: Callable[[str], object], text: str) -> float:
    """The best of three, in seconds."""
    return min(once(call, text) for _ in range(3))


def ratio(call: Callable[[str], object], short: str, long: str) -> float:
    """Time for the long text by that for the short one; the least of five looks."""
    looks = []
    for _ in range(5):
        looks.append(took(call, long) / max(took(call, short), 1e-9))
        if looks[-1] < RATIO:
            break
    return min(looks)


def check(call: Callable[[str], object], what: str) -> None:
    for piece in PIECES:
        for end in ENDS:
            short, long = (piece * (length // len(piece)) + end for length in (LENGTH, 2 * LENGTH))
            if once(call, long) > NOTICED_S:
                assert ratio(call, short, long) < RATIO, f"{what} with {piece!r} × {LENGTH}"


@pytest.mark.parametrize(("name", "pattern"), FOUND.values(), ids=lambda one: str(one)[:60])
def test_a_pattern_is_linear(name: str, pattern: re.Pattern[str]) -> None:
    # A search begins with a match at the first character.
    for how in (pattern.search, pattern.fullmatch):
        check(how, f"{name}.{how.__name__}")


def test_patterns_are_found() -> None:
    assert len(FOUND) > 40


MOVEMENTS = MovementTable(library())
HEADS = ("", "main", "Press ", "Bench press 3 × 8 ", "3 rounds ", "rest ", "A1. ")


@pytest.mark.parametrize("head", HEADS)
def test_a_line_of_the_notation_is_read_in_time(head: str) -> None:
    """Whole lines, at half of the longest that is taken, and at all of it."""

    def call(text: str) -> None:
        forget_lines()
        read(text, MOVEMENTS)

    for piece in PIECES:
        if piece == "\n":
            continue
        short, long = (head + piece * (length // len(piece)) + "!" for length in (450, 900))
        if took(call, long) > 0.02:
            assert ratio(call, short, long) < RATIO, (head, piece)
