"""Heat: one thermal network a plan, in steady state."""
