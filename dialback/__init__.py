"""Dial Back: audit of strength training."""

__version__ = "0.1.0"
