"""The built front end as it is served, wherever the house is."""
