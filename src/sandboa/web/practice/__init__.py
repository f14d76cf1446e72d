"""Practice, a person's own: sessions of simulated eggs, and what was learned by them."""
