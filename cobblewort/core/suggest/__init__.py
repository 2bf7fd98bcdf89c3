"""Suggesting: kits that meet the needs of a plan."""
