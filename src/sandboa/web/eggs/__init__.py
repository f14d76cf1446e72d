"""Egg: its standing with the evidence for it, its history and photos; what-if of its box."""
