"""Every sentence that the rules say, to be read aloud."""
