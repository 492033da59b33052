"""Templates at true size."""
