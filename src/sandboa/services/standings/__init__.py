"""What is seen of eggs, and what the house's closed eggs taught of it: signs and losses."""
