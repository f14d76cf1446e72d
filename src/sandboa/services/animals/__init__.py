"""Dams and sires: traits, genes, meals, weights."""
