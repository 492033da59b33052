"""The page behind the studio's name: what is in hand, and the next fortnight on the bench."""
