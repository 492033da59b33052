"""A letter a week: what the next fortnight asks for, by mail to whoever wishes for it."""
