"""Lists of before Sandboa, and the past clutches that came of them."""
