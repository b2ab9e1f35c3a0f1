"""Small stand-ins for outside devices, behind the interface that a real one would have."""
