"""The plan of a bench whose greatest lateness is least.

One bench whose work may be interrupted, ready dates, and waits between the steps of a job. Work that is interrupted can be
sorted between two arrivals so that each step is done in one go; so every plan is a choice of one job at each arrival and at
each end of a step, and none gains by resting. A lateness is tried by branching over those choices, most urgent first. A branch
is cut where even the relaxed plan fails in which each step is a job of its own, ready when its own job alone could be there
and due when the rest of that job, alone, could still be in time: that one is decided by earliest deadlines (Horn 1974).
"""

from __future__ import annotations

from collections.abc import Sequence
from heapq import heappop, heappush
from itertools import pairwise

from .bench_hours import EASE, BenchHours
from .dispatch import State, dispatch, greatest_lateness, settle, work_on
from .jobs import Job, backwards

A_LONG_TIME = 1e8  # days between what is due first of one priority and last of the one before
EXACT = 5  # jobs up to which the plan is the best there is
MOST_BRANCHES = 20_000  # of one lateness, beyond which the best plan so far is taken


def least_late(jobs: Sequence[Job], bench: BenchHours) -> State:
    """The finished state of the plan: exact for up to `EXACT` jobs, and without waits and ready dates; else no worse than the
    earliest due date first. Where priorities differ, by them and then by due date: without waits the greatest lateness of each
    priority is the least beside what comes before it.
    """
    first = State.at_first(jobs)
    if len({job.priority for job in jobs}) > 1:
        return dispatch(first, jobs, bench, lambda which, _: jobs[which].priority * A_LONG_TIME + jobs[which].due)
    best = _by_due(first, jobs, bench)
    late = greatest_lateness(best, jobs)
    if not jobs or _is_plain(jobs):
        return best
    by_deadline = _by_deadline(first, jobs, bench, late)
    if greatest_lateness(by_deadline, jobs) < late:
        best, late = by_deadline, greatest_lateness(by_deadline, jobs)
    if len(jobs) > EXACT:
        return best
    least = _least_possible(first, jobs, bench, late)
    for tried in range(least, late):
        found = _Search(jobs, bench, tried).run(first)
        if found is not None:
            return found
    return best


def _is_plain(jobs: Sequence[Job]) -> bool:
    """Whether the order of due dates is the best there is."""
    return all(job.ready <= 0 and all(step.wait <= 0 for step in job.steps) for job in jobs)


def _by_due(first: State, jobs: Sequence[Job], bench: BenchHours) -> State:
    return dispatch(first, jobs, bench, lambda which, step: jobs[which].due)


def _deadlines(jobs: Sequence[Job], bench: BenchHours, late: int) -> list[list[float]]:
    """The latest end of each step of each job that may be so many days late."""
    return [backwards(job, bench, job.due + late)[0] for job in jobs]


def _by_deadline(first: State, jobs: Sequence[Job], bench: BenchHours, late: int) -> State:
    ends = _deadlines(jobs, bench, late)
    return dispatch(first, jobs, bench, lambda which, step: ends[which][step])


def _least_possible(first: State, jobs: Sequence[Job], bench: BenchHours, most: int) -> int:
    """The least lateness for which the relaxed plan is in time."""
    low, high, step = most, most, 1
    while _Search(jobs, bench, low).could_be(first):
        high, low, step = low, low - step, step * 2
    while high - low > 1:
        middle = (low + high) // 2
        if _Search(jobs, bench, middle).could_be(first):
            high = middle
        else:
            low = middle
    return high


class _Search:
    """The search for a plan that is no more than so many days late."""

    def __init__(self, jobs: Sequence[Job], bench: BenchHours, late: int) -> None:
        self.jobs, self.bench, self.late = jobs, bench, late
        self.ends = _deadlines(jobs, bench, late)
        self.seen: set[tuple] = set()
        self.branches = 0

    def run(self, first: State) -> State | None:
        """A finished state in time; None where there is none, or none was found in `MOST_BRANCHES`."""
        state = first.copy()
        for which in range(len(self.jobs)):
            settle(state, self.jobs, which)
        stack = [state]
        while stack and self.branches < MOST_BRANCHES:
            state = stack.pop()
            self._to_the_next_choice(state)
            key = state.key()
            if key in self.seen or not self.could_be(state):
                continue
            self.seen.add(key)
            self.branches += 1
            whole = dispatch(state, self.jobs, self.bench, lambda which, step: self.ends[which][step])
            if greatest_lateness(whole, self.jobs) <= self.late:
                return whole
            stack.extend(reversed(self._choices(state)))
        return None

    def _to_the_next_choice(self, state: State) -> None:
        """Let time pass until some job can be worked."""
        while not self._can(state):
            coming = [state.free[which] for which in self._open(state)]
            if not coming:
                return
            state.now = max(state.now, min(coming))
            for which in range(len(self.jobs)):
                settle(state, self.jobs, which)

    def _open(self, state: State) -> list[int]:
        return [which for which, day in enumerate(state.finished) if day is None]

    def _can(self, state: State) -> list[int]:
        return [which for which in self._open(state) if state.free[which] <= state.now + EASE]

    def _choices(self, state: State) -> list[State]:
        """What can come next, most urgent first: each job that can be worked, until its step ends or another one comes."""
        can = sorted(self._can(state), key=lambda which: self.ends[which][state.step[which]])
        later = [state.free[which] for which in self._open(state) if state.free[which] > state.now + EASE]
        until = min(later, default=float("inf"))
        found = []
        for which in can:
            after = state.copy()
            work_on(after, self.jobs, self.bench, which, until)
            for each in range(len(self.jobs)):
                settle(after, self.jobs, each)
            found.append(after)
        return found

    def could_be(self, state: State) -> bool:
        """Whether the relaxed plan is in time from this state on."""
        pieces = []
        for which in range(len(self.jobs)):
            if state.finished[which] is not None:
                if int(state.finished[which] or 0) - self.jobs[which].due > self.late:
                    return False
                continue
            pieces += self._pieces(state, which)
        return self._in_time(sorted(pieces), state.now)

    def _pieces(self, state: State, which: int) -> list[tuple[float, float, float]]:
        """What is left of a job as jobs of their own: when each can begin, by when it has to end, its minutes."""
        moment, found = max(state.free[which], state.now), []
        steps = self.jobs[which].steps
        for number in range(state.step[which], len(steps)):
            minutes = state.left[which] if number == state.step[which] else steps[number].minutes
            if minutes > 0:
                found.append((moment, self.ends[which][number], minutes))
                moment = self.bench.earliest(self.bench.work_at(moment) + minutes)
            elif moment > self.ends[which][number] + EASE:
                found.append((moment, self.ends[which][number], 0.0))
            moment += steps[number].wait
        return found

    def _in_time(self, pieces: Sequence[tuple[float, float, float]], now: float) -> bool:
        """Whether interrupted work by earliest deadlines ends each in time. Times are told in work done."""
        bench = self.bench
        rows = [(bench.work_at(begins), bench.work_at(ends), minutes) for begins, ends, minutes in pieces]
        done = bench.work_at(now)
        waiting: list[tuple[float, float]] = []
        arrivals = [begins for begins, _, _ in rows] + [float("inf")]
        for (begins, deadline, minutes), (_, until) in zip(rows, pairwise(arrivals), strict=True):
            done = max(done, begins)
            heappush(waiting, (deadline, minutes))
            while waiting and done < until - EASE:
                due, left = heappop(waiting)
                worked = min(left, until - done)
                done += worked
                if left - worked > EASE:
                    heappush(waiting, (due, left - worked))
                elif done > due + EASE:
                    return False
        return True
