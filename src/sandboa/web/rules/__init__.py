"""Numbers of the core that a screen draws or checks with: told once, never copied."""
