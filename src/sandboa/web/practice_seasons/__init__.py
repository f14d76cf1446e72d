"""Practice: seasons of simulated boxes, kept day by day and told."""
