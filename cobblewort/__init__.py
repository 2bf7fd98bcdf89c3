"""Cobblewort: plan a single-board-computer appliance, and know before buying whether it works."""

__version__ = "0.1.0"
