"""Look and judge: one simulated egg at a time, judged before its truth is told."""
