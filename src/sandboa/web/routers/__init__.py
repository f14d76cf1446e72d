"""One router for each place of the product."""
