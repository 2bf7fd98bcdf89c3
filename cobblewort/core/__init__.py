"""The product: every rule and every sum. No web, database, file or clock code lives here."""
