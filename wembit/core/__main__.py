"""`python -m wembit.core VERB [--lines]`: JSON in on standard input, JSON out on standard output."""

from __future__ import annotations

import json
import sys

from wembit.core.contract.validator import Pairs

from .errors import BadInput
from .verbs import VERBS

USAGE = f"usage: python -m wembit.core VERB [--lines] < request.json\nverbs: {', '.join(VERBS)}"


def answer(verb: str, raw: bytes) -> dict:
    """The answer to one request; raises `BadInput`."""
    _, answers = VERBS[verb]
    try:
        request = json.loads(raw.decode("utf-8"), object_pairs_hook=Pairs.hook)
    except UnicodeDecodeError:
        raise BadInput("request", "must be UTF-8") from None
    except RecursionError:
        raise BadInput("request", "is nested too deep") from None
    except ValueError as fault:
        raise BadInput("request", f"must be JSON ({fault})") from None
    if not isinstance(request, dict):
        raise BadInput("request", "must be an object", request)
    try:
        found = answers(request)
        json.dumps(found, allow_nan=False)
    except BadInput:
        raise
    except (OverflowError, ZeroDivisionError, ValueError):
        raise BadInput("request", "its numbers are too large or too far apart to be computed") from None
    return found


def main(arguments: list[str]) -> int:
    """Answer the verb named in `arguments`; the exit code: 0, 1 for a wrong request, 2 for a verb that is not there."""
    lines = "--lines" in arguments
    words = [word for word in arguments if word != "--lines"]
    if len(words) != 1 or words[0] not in VERBS:
        print(USAGE, file=sys.stderr)
        return 2
    verb = words[0]
    raw = sys.stdin.buffer.read()
    rows = [row for row in raw.split(b"\n") if row.strip()] if lines else [raw]
    failed = False
    for row in rows:
        try:
            print(json.dumps(answer(verb, row), allow_nan=False))
        except BadInput as fault:
            failed = True
            print(json.dumps(fault.as_json()))
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
