"""Data: quick enough."""
