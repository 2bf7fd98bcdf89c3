"""First kits of all purposes in several places."""
