"""IP ratings: what an enclosure keeps out, by the two digits of its code.

References
----------
.. [1] IEC 60529, degrees of protection provided by enclosures (from memory).
"""

DUST_PROTECTED = 5
"""First digit: dust that gets in does no harm."""
SPLASHING = 4
"""Second digit: splashing water from any direction."""
