"""Stock rules: allocation of lots, packs, the dated forecast."""
