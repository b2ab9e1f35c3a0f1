"""Logs as spreadsheets, one row a set: what the columns mean, in and out."""
