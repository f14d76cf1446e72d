"""What stands before every request: who may come in, from where, with how much, and how often."""
