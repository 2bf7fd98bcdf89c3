"""What is planned, out of which parts, and a change to it as data."""
