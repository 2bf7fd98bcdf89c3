"""Every kit of one board, supply, case, cooler and drive that the shipped catalogue allows."""
