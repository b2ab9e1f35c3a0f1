"""Which session was done for which plan, and which set for which: pairs of places, no words."""
