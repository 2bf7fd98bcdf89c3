"""Power: the forest of DC trees, and what each of its limits says."""
