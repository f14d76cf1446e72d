"""What is done to answers on their way out."""
