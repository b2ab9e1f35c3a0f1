"""A made-up club over a year, with faults that are known: what the verdict says of it.

``year`` makes an athlete's year, ``planted`` puts into it what is to be found and what is not,
``score`` reads the verdicts week by week, ``follow`` takes the advice for some weeks.
"""
