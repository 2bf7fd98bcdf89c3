"""Parts: what a thing offers, what it needs, what it draws, and how warm it gets."""
