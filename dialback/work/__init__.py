"""What a coach does: each thing under one lock, in one transaction."""
