"""What a kit is judged by, one room an aspect."""
