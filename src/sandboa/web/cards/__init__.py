"""What is printed for a box: the code, cards and labels."""
