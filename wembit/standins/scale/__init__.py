"""A bench scale that is not there: it settles, drifts, is overloaded and unplugged like one that is."""
