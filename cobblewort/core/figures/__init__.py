"""Numbers that know how sure they are, and functions of one or of many."""
