"""Forms: what is edited as a whole, and saved only over the version that was seen.

`revisions` compares versions; `people_and_things`, `clutch` and `numbers` say
what each form holds now.
"""
