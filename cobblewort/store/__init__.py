"""The store: SQLite through plain SQL."""
