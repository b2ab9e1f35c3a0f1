"""One module of the API per place of the interface."""
