"""The command ``dialback``. Bad input ends with one line on standard error and status 2."""

from dialback.cli import accounts, books, data, server
from dialback.cli.common import main

__all__ = ["accounts", "books", "data", "main", "server"]
