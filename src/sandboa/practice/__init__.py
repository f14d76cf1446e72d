"""Practice: simulated eggs and boxes, judged and kept by a learner, with the truth afterwards.

It touches nothing of the house: it asks the core what Sandboa would say, and keeps what a person
did in that person's own file (`records.practice_store`). import-linter keeps it so.
"""
