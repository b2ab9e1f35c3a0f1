"""The long run: what creeps, repeats, stalls over many weeks, and what in a log is doubtful."""
