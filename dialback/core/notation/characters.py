"""The characters that keyboards, phones and word processors put in place of the plain ones."""

from __future__ import annotations

from typing import Final

_SPACES: Final = (
    "\u00a0\u1680\u2000\u2001\u2002\u2003\u2004\u2005\u2006\u2007\u2008\u2009\u200a\u202f\u205f"
    "\u3000\u200b\u200c\u200d\u2060\ufeff\u000b\u000c\u0085\u2028\u2029"
)
_DASHES: Final = "\u2010\u2011\u2012\u2013\u2014\u2015\u2212\u2043\u00ad\ufe58\ufe63"
_SINGLE: Final = "\u2018\u2019\u201a\u201b\u2032\u02bc\u00b4\u0060"
_DOUBLE: Final = "\u201c\u201d\u201e\u201f\u2033\u00ab\u00bb"
_TIMES: Final = "\u2715\u2716\u2a2f\u2573\u2a09"
_SLASHES: Final = "\u2044\u2215\u29f8"

_PLAIN: Final = {
    **dict.fromkeys(map(ord, _SPACES), " "),
    **dict.fromkeys(map(ord, _DASHES), "-"),
    **dict.fromkeys(map(ord, _SINGLE), "'"),
    **dict.fromkeys(map(ord, _DOUBLE), '"'),
    **dict.fromkeys(map(ord, _TIMES), "\u00d7"),
    **dict.fromkeys(map(ord, _SLASHES), "/"),
    # The wide forms of ASCII that some keyboards type.
    **{wide: chr(wide - 0xFEE0) for wide in range(0xFF01, 0xFF5F)},
}


def plain(text: str) -> str:
    """The text with plain spaces, dashes, quotes and crosses; as long as it was, place by place."""
    return text.translate(_PLAIN)


def lines_of(text: str) -> list[str]:
    """The lines of a text with line ends of any system."""
    return text.replace("\r\n", "\n").replace("\r", "\n").split("\n")
