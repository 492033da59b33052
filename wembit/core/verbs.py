"""The verbs of the command line: the rule of each request and what answers it."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from wembit.core.contract import requests
from wembit.core.contract.validator import Thing

if TYPE_CHECKING:
    from .colour.conversions import Lab
    from .colour.mixing_lots import MixingLots
    from .stock.forecast import Fibre, Future
    from .stock.packs import Chosen


TOLD_FROM = 1e-6  # grams from which something is missing


def _estimate(request: dict) -> dict:
    from wembit.core.grams.estimate import as_json, estimate

    return as_json(estimate(request))


def _cover(request: dict) -> dict:
    from .colour.show_through import cover

    clean = requests.COVER(request, "")
    covered = cover(clean.pop("srgb"), clean.pop("over"), clean.pop("micron_um"), clean.pop("tau"), **clean)
    row = {"cover_g_m2": covered.g_m2, "bare": covered.bare, "de00": covered.de00}
    return row | {"capped": True} if covered.capped else row


def _match(request: dict) -> dict:
    from wembit.core.colour.conversions import xyz_to_lab

    from .colour.mixing_lots import MixingLots, ratios_of

    clean = requests.MATCH(request, "")
    return _singles(xyz_to_lab(ratios_of(clean["target"])), MixingLots.of(clean["lots"]), clean["limit"])


def _singles(lab: Lab, palette: MixingLots, limit: int) -> dict:
    from .colour.matching import nearest

    near = nearest(lab, palette.ids, palette.labs, limit)
    return {"singles": [{"id": palette.ids[each.index], "de00": each.de00, "words": each.words} for each in near]}


def _blend(request: dict) -> dict:
    from wembit.core.colour.conversions import xyz_to_lab, xyz_to_srgb
    from wembit.core.colour.search.blending import blends

    from .colour.mixing_lots import MixingLots, ratios_of

    clean = requests.BLEND(request, "")
    palette, target, grams = MixingLots.of(clean["lots"]), ratios_of(clean["target"]), clean["grams"]
    recipes = blends(target, palette, grams, max_fibres=clean["max_fibres"], parts=clean["parts"], limit=clean["limit"])
    rows = [
        {
            "recipe": [
                {"id": palette.ids[index], "parts": parts, "grams": weight}
                for index, parts, weight in zip(blend.indices, blend.parts, blend.weighed(grams), strict=True)
            ],
            "lab": list(blend.lab),
            "srgb": xyz_to_srgb(blend.ratios),
            "de00": blend.de00,
            "mottle": blend.mottle,
            "words": blend.words,
        }
        for blend in recipes
    ]
    return _singles(xyz_to_lab(target), palette, clean["limit"]) | {"blends": rows}


def _calibrate(request: dict) -> dict:
    from .learning.calibration import learnt

    clean = requests.CALIBRATE(request, "")
    found: dict[tuple, list[float]] = {}
    for record in clean["records"]:
        found.setdefault(_hand_of(record), []).append(record["actual_g"] / record["planned_g"])
    answers = []
    for asked in clean["ask"]:
        hand = learnt(found.get(_hand_of(asked), []))
        told = {key: value for key, value in asked.items() if value is not None}
        answers.append(told | {"bias": hand.bias, "sigma": hand.sigma, "n": hand.n})
    return {"answers": answers}


def _hand_of(row: dict) -> tuple:
    """Whose hand, at what."""
    return row["maker"], row.get("firmness"), row.get("role")


def _allocate(request: dict) -> dict:
    from .stock.allocation import Demand, FreeLot, allocate

    clean = requests.ALLOCATE(request, "")
    lots = [
        FreeLot(lot["id"], lot["fibre"], lot["grams"], lot["dye_lot"] or "", lot["opened"]) for lot in clean["lots"]
    ]
    demands = [
        Demand(each["id"], each["due"], each["fibre"], each["grams"], each["visible"]) for each in clean["demands"]
    ]
    found = allocate(lots, demands, least=TOLD_FROM)
    return {
        "reservations": [{"demand": each.demand, "lot": each.lot, "grams": each.grams} for each in found.reservations],
        "short": [
            {"demand": each.id, "fibre": each.fibre, "grams": found.short[each.id]}
            for each in demands
            if each.id in found.short
        ],
    }


def _packs(request: dict) -> dict:
    from .stock.packs import cheapest

    clean = requests.PACKS(request, "")
    chosen = cheapest(clean["grams"], [(pack["grams"], pack["price"]) for pack in clean["packs"]])
    return {"packs": _packs_json(chosen), "grams": chosen.grams, "cost": chosen.cost}


def _packs_json(chosen: Chosen) -> list[dict]:
    return [{"grams": grams, "count": count} for grams, count in chosen.packs]


def _forecast(request: dict) -> dict:
    from .stock.forecast import futures

    clean = requests.FORECAST(request, "")
    found = futures(
        clean["today"],
        [_fibre(fibre) for fibre in clean["fibres"]],
        service=clean["service"],
        horizon_days=clean["horizon_days"],
    )
    return {"fibres": [_future_json(fibre["id"], each) for fibre, each in zip(clean["fibres"], found, strict=True)]}


def _fibre(told: dict) -> Fibre:
    from .stock.forecast import Dated, Fibre, Habit

    habit = told["habit"] or {"weekly_g": 0.0, "weekly_sd_g": 0.0}
    return Fibre(
        told["on_hand_g"],
        [Dated(each["date"], each["grams"], each["sigma"]) for each in told["demands"]],
        [Dated(each["date"], each["grams"]) for each in told["receipts"]],
        Habit(habit["weekly_g"], habit["weekly_sd_g"]),
        told["lead_days"],
        told["lead_sd_days"],
        [(pack["grams"], pack["price"]) for pack in told["packs"]],
        told["cover_days"],
    )


def _future_json(key: str, future: Future) -> dict:
    outlook = future.outlook
    return {
        "id": key,
        "runs_out": outlook.runs_out and outlook.runs_out.isoformat(),
        "order_by": outlook.order_by and outlook.order_by.isoformat(),
        "late": outlook.late,
        "order_g": outlook.order_g,
        "packs": _packs_json(outlook.chosen),
        "cost": outlook.chosen.cost,
        "odds": [{"date": row.date.isoformat(), "short": min(1.0, max(0.0, row.short))} for row in future.levels],
        "balance": [
            {"date": row.date.isoformat(), "p10": row.p10, "p50": row.p50, "p90": row.p90} for row in future.levels
        ],
    }


def _schedule(request: dict) -> dict:
    from .scheduling.jobs import Job, Step
    from .scheduling.plan import planned

    clean = requests.SCHEDULE(request, "")
    today = clean["today"]
    jobs = [
        Job(
            (job["due"] - today).days,
            tuple(Step(step["minutes"], 60 * step["wait_hours"]) for step in job["steps"]),
            max(0, (job["ready"] - today).days) if job["ready"] else 0,
        )
        for job in clean["jobs"]
    ]
    rows, weeks = planned(today, clean["hours"], jobs, clean["days_off"])
    return {
        "jobs": [
            {
                "id": job["id"],
                "latest_start": row.latest_start.isoformat(),
                "start": row.start.isoformat(),
                "finish": row.finish.isoformat(),
                "late_days": row.late_days,
            }
            for job, row in zip(clean["jobs"], rows, strict=True)
        ],
        "load": [
            {
                "week": week.week.isoformat(),
                "minutes": round(week.minutes, 6),
                "capacity_min": round(week.capacity_min, 6),
            }
            for week in weeks
        ],
    }


VERBS: dict[str, tuple[Thing, Callable[[dict], dict]]] = {
    "estimate": (requests.ESTIMATE, _estimate),
    "cover": (requests.COVER, _cover),
    "match": (requests.MATCH, _match),
    "blend": (requests.BLEND, _blend),
    "calibrate": (requests.CALIBRATE, _calibrate),
    "allocate": (requests.ALLOCATE, _allocate),
    "forecast": (requests.FORECAST, _forecast),
    "packs": (requests.PACKS, _packs),
    "schedule": (requests.SCHEDULE, _schedule),
}
