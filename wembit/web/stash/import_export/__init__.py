"""The stash and the ledger as files."""
