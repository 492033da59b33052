"""The verbs of the command line: the rule of each request and what answers it, None where it is not built yet."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from wembit.core.contract import requests
from wembit.core.contract.validator import Thing

if TYPE_CHECKING:
    from .colour.conversions import Lab
    from .colour.mixing_lots import MixingLots
    from .stock.packs import Chosen


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


def _packs(request: dict) -> dict:
    from .stock.packs import cheapest

    clean = requests.PACKS(request, "")
    chosen = cheapest(clean["grams"], [(pack["grams"], pack["price"]) for pack in clean["packs"]])
    return {"packs": _packs_json(chosen), "grams": chosen.grams, "cost": chosen.cost}


def _packs_json(chosen: Chosen) -> list[dict]:
    return [{"grams": grams, "count": count} for grams, count in chosen.packs]


def _forecast(request: dict) -> dict:
    from .stock.forecast import Dated, balances, forecast, weekly

    clean = requests.FORECAST(request, "")
    today, horizon = clean["today"], clean["horizon_days"]
    fibres = []
    for fibre in clean["fibres"]:
        demands = [Dated(share["date"], share["grams"]) for share in fibre["demands"]]
        receipts = [Dated(share["date"], share["grams"]) for share in fibre["receipts"]]
        outlook = forecast(
            today,
            fibre["on_hand_g"],
            demands,
            receipts,
            lead_days=fibre["lead_days"],
            packs=[(pack["grams"], pack["price"]) for pack in fibre["packs"]],
            horizon_days=horizon,
            cover_days=fibre["cover_days"],
        )
        rows = weekly(today, balances(today, fibre["on_hand_g"], demands, receipts), horizon)
        fibres.append(
            {
                "id": fibre["id"],
                "runs_out": outlook.runs_out and outlook.runs_out.isoformat(),
                "order_by": outlook.order_by and outlook.order_by.isoformat(),
                "late": outlook.late,
                "order_g": outlook.order_g,
                "packs": _packs_json(outlook.chosen),
                "cost": outlook.chosen.cost,
                "odds": [
                    {
                        "date": row.date.isoformat(),
                        "short": float(outlook.runs_out is not None and outlook.runs_out <= row.date),
                    }
                    for row in rows
                ],
                "balance": [
                    {"date": row.date.isoformat(), "p10": row.grams, "p50": row.grams, "p90": row.grams} for row in rows
                ],
            }
        )
    return {"fibres": fibres}


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


VERBS: dict[str, tuple[Thing, Callable[[dict], dict] | None]] = {
    "estimate": (requests.ESTIMATE, _estimate),
    "cover": (requests.COVER, _cover),
    "match": (requests.MATCH, _match),
    "blend": (requests.BLEND, _blend),
    "calibrate": (requests.CALIBRATE, _calibrate),
    "allocate": (requests.ALLOCATE, None),
    "forecast": (requests.FORECAST, _forecast),
    "packs": (requests.PACKS, _packs),
    "schedule": (requests.SCHEDULE, _schedule),
}
