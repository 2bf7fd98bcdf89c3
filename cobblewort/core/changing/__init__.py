"""Changes to a plan, each tried before it is proposed."""
