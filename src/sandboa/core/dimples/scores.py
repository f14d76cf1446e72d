"""What each sign is worth for a cause of early dents (rules B, D, G)."""

from typing import Final

#: Log scores by name, with what they stand for (assumption; signs of rule B and G).
CAUSE_SCORES: Final = {
    "many early": (2.5, "dry box: so many eggs are early that it is the box"),
    "few early": (-1.5, "dry box: fewer are early"),
    "answered": (4.0, "dry box: it rounded out after water"),
    "not answered": (-1.5, "dry box: it did not round out after water"),
    "water dry": (2.0, "dry box: dry, by the water left"),
    "water low": (1.0, "dry box: water to be topped up"),
    "water enough": (-2.0, "dry box: surely water enough left"),
    "shell loses fast": (1.5, "shell: rough, window or thin"),
    "shell smooth": (-1.5, "shell: none of these"),
    "other signs": (-0.5, "failing egg: for each unit of log-odds its other signs give"),
    "siblings too": (-1.0, "failing egg: most siblings are dented too"),
}
DEFAULT_SCORES: Final = {name: score for name, (score, _) in CAUSE_SCORES.items()}
