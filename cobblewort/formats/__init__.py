"""Open formats in and out; no database."""
