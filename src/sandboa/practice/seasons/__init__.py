"""Keep a season: a cabinet of simulated boxes over sixty days, kept by a learner and told."""
