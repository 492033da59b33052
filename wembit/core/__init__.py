"""The rules of the job: plain Python and numpy, no Django, no database, no screen."""
