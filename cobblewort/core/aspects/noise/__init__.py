"""Noise: what is heard of a kit."""
