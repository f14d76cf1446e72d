"""Speed as ratios against the bare thing, measured side by side in one run."""
