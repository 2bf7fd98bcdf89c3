"""Cost: what the kit comes to."""
