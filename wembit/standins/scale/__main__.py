"""`python -m wembit.standins.scale PORT`: the scale on loopback until it is told to end.

With --with-parent it ends when its standard input does, so that it never outlives who started it.
"""

import sys
from contextlib import suppress

from .server import main

if __name__ == "__main__":
    with suppress(KeyboardInterrupt):
        main(int(sys.argv[1]), until=sys.stdin if "--with-parent" in sys.argv else None)
