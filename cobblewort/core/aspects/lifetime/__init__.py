"""Life: for how long, and what is kept."""
