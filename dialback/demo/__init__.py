"""Sallowmere Rowing Club: twelve made-up rowers in their winter land training."""
