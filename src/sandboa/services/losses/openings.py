"""A failed egg opened, and what was found; "not opened" is an answer too."""

from dataclasses import dataclass, field

from sandboa.core.act_kinds import ActKind
from sandboa.core.causes import Findings, checked_findings
from sandboa.core.causes.findings import FINDINGS
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching import Fate
from sandboa.records.facts import Act
from sandboa.records.hatching import EggFate, Emergence, Finding, Opening
from sandboa.services.acts.preconditions import clutch_called, egg_of, require_between_lay_and_now
from sandboa.services.acts.recording import act

_LONGEST_NOTE = 400


@dataclass(frozen=True, slots=True)
class OpeningCommand:
    """What was seen; `opened` False: it was not, and will not be, opened."""

    number: int
    opened: bool
    findings: Findings = field(default_factory=dict)
    note: str = ""


def record_opening(code: str, said: OpeningCommand, at_s: float, now_s: float) -> Act:
    """Record, or correct, what was found in a failed egg. A closed clutch's too.

    Raises NotFound; NotPlausible for an egg that hatched alive or may still
    live, for findings that cannot be together, or of an egg that was not opened.
    """
    clutch = clutch_called(code)
    require_between_lay_and_now(clutch, at_s, now_s)
    egg = egg_of(clutch, said.number)
    fate = EggFate.only(egg_id=egg.entity_id)
    out = Emergence.only(egg_id=egg.entity_id)
    if fate is None and not egg.slug:
        what = "it has come out" if out else "say first what became of it"
        raise NotPlausible("number", f"egg {said.number}: {what}")
    if fate is not None and Fate(fate.fate) is Fate.HATCHED:
        raise NotPlausible("number", f"egg {said.number} hatched alive")
    findings = checked_findings(said.findings)
    if findings and not said.opened:
        raise NotPlausible("findings", f"egg {said.number} was not opened: nothing was found in it")
    note = " ".join(said.note.split())
    if len(note) > _LONGEST_NOTE:
        raise NotPlausible("note", f"{_LONGEST_NOTE} characters are enough for a note")
    with act(ActKind.OPENING, _words(said, findings), now_s, clutch.entity_id) as opening:
        Opening.put(
            opening, {"egg_id": egg.entity_id}, at_s=int(at_s), opened=int(said.opened), note=note
        )
        held = {(f.kind, f.value): f for f in Finding.current(egg_id=egg.entity_id)}
        for kind, values in findings.items():
            for value in sorted(values):
                if held.pop((kind.value, value), None) is None:
                    Finding.record(opening, egg_id=egg.entity_id, kind=kind.value, value=value)
        for gone in held.values():
            gone.retire(opening)
    return opening


def _words(said: OpeningCommand, findings: Findings) -> str:
    if not said.opened:
        return f"Egg {said.number} not opened"
    seen = [FINDINGS[kind][value] for kind, values in findings.items() for value in sorted(values)]
    return f"Egg {said.number} opened{': ' if seen else ''}{', '.join(seen)}"
