"""The rules of the job.

Pure: no web, no database, no files, no clock. The way through is
``Set`` -> ``counting`` -> ``tally`` -> ``baseline``/``balance`` -> ``findings`` -> ``audit``.
"""
