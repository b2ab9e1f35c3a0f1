"""A made-up club over a year, with faults that are known: what the verdict says of it.

``club`` makes the athletes' years, ``faults`` and ``oddities`` put into them what is to be found
and what is not, ``score`` reads the verdicts week by week.
"""
