"""Serial ATA: the rate of its link. Serial ATA revision 3, from memory."""

RAW_RATE_MB_S = 6e3 * 8 / 10 / 8
"""6 Gb/s with 8 payload bits in each 10 on the wire. [10^6 B/s]"""
