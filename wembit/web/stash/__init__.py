"""Items, lots and the ledger."""
