"""The rows of files that come in and go out: what a stash file and a ledger file say, and what becomes of each row."""
