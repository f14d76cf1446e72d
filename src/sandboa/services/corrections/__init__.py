"""What one act recorded, told anew: its fields, and the command that records it again."""
