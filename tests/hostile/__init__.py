"""Hostile input: values, patterns, files, pages, and many hands at once."""
