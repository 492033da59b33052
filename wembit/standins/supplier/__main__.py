"""`python -m wembit.standins.supplier PORT [DAYS]`: the supplier on loopback until it is told to end.

DAYS is the file in which a day that passes is counted. With --with-parent it ends when its standard input does, so that it
never outlives who started it.
"""

import sys
from contextlib import suppress
from pathlib import Path

from .server import main

if __name__ == "__main__":
    given = [word for word in sys.argv[1:] if not word.startswith("--")]
    days = Path(given[1]) if len(given) > 1 else None
    with suppress(KeyboardInterrupt):
        main(int(given[0]), days, until=sys.stdin if "--with-parent" in sys.argv else None)
