"""How loud rooms are that people know, to hold a figure against. [dB(A)]"""

ROOMS_DBA: tuple[tuple[str, float], ...] = (
    ("bedroom at night", 30.0),  # WHO Guidelines for Community Noise (1999), table 4.1
    ("classroom, nobody speaks", 35.0),  # the same
    ("office at work", 50.0),  # common practice
    ("talk at 1 m", 60.0),  # ISO 9921, normal vocal effort (from memory)
)
