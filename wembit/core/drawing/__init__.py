"""A placed figure as drawings: views, felt, marks, the cut, templates at true size."""
