"""Settings: the house's methods and numbers, each with its reason; and the cabinets' readiness."""
