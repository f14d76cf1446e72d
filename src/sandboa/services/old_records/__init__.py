"""Records of before Sandboa: checked line by line, stored in one act, corrected."""
