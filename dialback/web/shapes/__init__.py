"""What the API takes and gives, a module for each place; `common` has what several share."""
