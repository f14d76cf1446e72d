"""Cabinet: the drawing, its climate, events, shelves and set point."""
