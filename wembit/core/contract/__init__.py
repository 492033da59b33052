"""The contract of the command line: the validator and what each verb asks for."""
