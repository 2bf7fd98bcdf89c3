"""Fit: does it go together."""
