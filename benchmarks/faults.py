"""How well faults are recognised in simulated seasons: precision, recall, false alarms."""

from collections import Counter
from concurrent.futures import ProcessPoolExecutor

from benchmarks.seasons import DAY_S, DAYS, Truth, season
from sandboa.core.climate.faults import Fault, FaultKind, recognise

_SEASONS = 24
_CLEAN = 12
#: Seeds from here on were never looked at before the rules were done.
_SCORED = 95_000
_AIM = 0.9
#: s by which a recognised fault may miss its true span and still be the same one.
_SLACK_S = 3_600.0


def report(seasons: int = _SEASONS, clean: int = _CLEAN) -> str:
    """The report as text: per fault found, missed and wrongly told."""
    hit, told, true = Counter[FaultKind](), Counter[FaultKind](), Counter[FaultKind]()
    with ProcessPoolExecutor() as workers:
        for made_hit, made_told, made_true in workers.map(
            _score, range(_SCORED, _SCORED + seasons)
        ):
            hit, told, true = hit + made_hit, told + made_told, true + made_true
        false_alarms = sum(workers.map(_false_alarms, range(_SCORED, _SCORED + clean)))
    months = clean * DAYS / 30.0
    lines = [f"Faults in {seasons} simulated cabinets over {DAYS} days (aim {_AIM} / {_AIM})"]
    for kind in FaultKind:
        precision = hit[kind] / told[kind] if told[kind] else 1.0
        recall = hit[kind] / true[kind] if true[kind] else 1.0
        met = "met" if precision >= _AIM and recall >= _AIM else "MISSED"
        lines.append(
            f"  {kind:12} precision {precision:.2f}  recall {recall:.2f}  "
            f"({hit[kind]} of {true[kind]} found, {told[kind] - hit[kind]} wrong)  {met}"
        )
    rate = false_alarms / months
    met = "met" if rate <= 1.0 else "MISSED"
    lines.append(
        f"  {clean} clean cabinets: {false_alarms} false alarms in {months:.0f} cabinet months, "
        f"{rate:.2f} a month (aim 1)  {met}"
    )
    return "\n".join(lines)


def _score(seed: int) -> tuple[Counter[FaultKind], Counter[FaultKind], Counter[FaultKind]]:
    """Of one season by kind: found, told, true. What is told beyond the true ones is wrong."""
    made = season(seed, faults=True)
    left = list(made.truths)
    hit, told = Counter[FaultKind](), Counter[FaultKind]()
    for fault in recognise(made.records, made.set_points, made.end_s):
        told[fault.kind] += 1
        same = next((t for t in left if _same(t, fault)), None)
        if same is not None:
            left.remove(same)
            hit[fault.kind] += 1
    return hit, told, Counter(t.kind for t in made.truths)


def _false_alarms(seed: int) -> int:
    """What is told of a clean season and is not true; that eggs warm their box is."""
    made = season(seed, faults=False)
    found = recognise(made.records, made.set_points, made.end_s)
    return sum(not any(_same(truth, fault) for truth in made.truths) for fault in found)


def _same(truth: Truth, fault: Fault) -> bool:
    end_s = fault.end_s if fault.end_s is not None else DAYS * DAY_S
    overlaps = fault.start_s <= truth.end_s + _SLACK_S and end_s >= truth.start_s - _SLACK_S
    return (
        truth.kind is fault.kind and overlaps and (not truth.probe or truth.probe in fault.probes)
    )


if __name__ == "__main__":
    print(report())
