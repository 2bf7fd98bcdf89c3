"""Cautions where the work can hurt somebody."""
