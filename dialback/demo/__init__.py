"""Sallowmere Rowing Club: thirteen made-up rowers in their winter land training."""
