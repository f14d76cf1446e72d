"""Orientation, knocks, infection, shell: what the egg's own record says (rule G)."""

from collections.abc import Iterator
from typing import Final

from sandboa.core.box import Shell, is_smooth, shell_words
from sandboa.core.candling import Disc
from sandboa.core.causes.evidence import LossEvidence
from sandboa.core.causes.findings import FindingKind
from sandboa.core.causes.grounds import CauseSign, percent
from sandboa.core.causes.kinds import Cause
from sandboa.core.causes.rules import CauseRules
from sandboa.core.lay_day import EggEvent
from sandboa.core.rounds.acts import EggActKind
from sandboa.core.standing.signs import SignKind

_KNOCKS: Final = frozenset(
    {EggEvent.DROPPED.value, EggEvent.TORN.value, EggActKind.DROPPED.value, EggActKind.TORN.value}
)


def underneath(egg: LossEvidence, _: CauseRules) -> Iterator[CauseSign]:
    cause = Cause.UNDERNEATH
    rolled = [h for h in egg.happened if h.kind == EggActKind.ROLLED]
    if rolled:
        # Found rolled: it happened at any time since the look before.
        holds = max(
            (egg.window.chance_after(h.after) + egg.window.chance_after(h.share)) / 2.0
            for h in rolled
        )
        yield CauseSign(cause, "rolled", holds, f"found rolled at {percent(rolled[0].share)}")
    elif egg.turned or egg.disc_at_lay is Disc.TOP:
        yield CauseSign(cause, "on top")
    elif egg.disc_at_lay is Disc.UNDER:
        yield CauseSign(cause, "under")
    elif egg.disc_at_lay is Disc.SIDE:
        yield CauseSign(cause, "side")
    if egg.found(FindingKind.POSITION, "under"):
        yield CauseSign(cause, "found under", found=True)
    elif egg.found(FindingKind.POSITION, "side"):
        yield CauseSign(cause, "found side", found=True)
    elif egg.found(FindingKind.POSITION, "top"):
        yield CauseSign(cause, "found on top", found=True)


def knocked(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    cause = Cause.KNOCKED
    knocks = [h for h in egg.happened if h.kind in _KNOCKS]
    before = [(egg.window.chance_after(h.share), h.share, h.kind) for h in knocks]
    if before:
        holds, share, kind = max(before)
        yield CauseSign(cause, "knocked", holds, f"{kind} at {percent(share)}")
        if egg.window.start <= share + rules.limits.soon_after:
            soon = egg.window.chance_between(share, share + rules.limits.soon_after)
            yield CauseSign(cause, "soon after", soon)
        wept = [s.share for s in egg.seen if s.kind is SignKind.WET and s.value != "dry"]
        if any(s >= share for s in wept):
            yield CauseSign(cause, "weeps", holds)
    else:
        yield CauseSign(cause, "none")
    if egg.found(FindingKind.SHELL, "torn"):
        yield CauseSign(cause, "tear found", found=True)
    elif egg.known(FindingKind.SHELL):
        yield CauseSign(cause, "no tear", found=True)


def infection(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    cause = Cause.INFECTION
    bad = [
        s.share
        for s in egg.seen
        if (s.kind is SignKind.MOULD and s.value != "none")
        or (s.kind is SignKind.SMELL and s.value != "none")
    ]
    good = [s.share for s in egg.seen if (s.kind, s.value) == (SignKind.VESSELS, "strong")]
    failed = [
        s.share for s in egg.seen if s.kind is SignKind.VESSELS and s.value in ("none", "broken")
    ]
    first_bad = min(bad, default=None)
    if first_bad is not None and any(share >= first_bad for share in good):
        words = f"first spot or smell at {percent(first_bad)}, vessels still strong"
        yield CauseSign(cause, "while good", 1.0, words)
    elif first_bad is not None and any(share < first_bad for share in failed):
        yield CauseSign(cause, "vessels first")
    elif first_bad is None and not egg.found(FindingKind.OUTSIDE, "top", "below", "all over"):
        yield CauseSign(cause, "no mould")
    if egg.found(FindingKind.INSIDE, "through"):
        yield CauseSign(cause, "through", found=True)
    elif egg.found(FindingKind.INSIDE, "clean"):
        yield CauseSign(cause, "clean inside", found=True)
    sequence = [
        s
        for s in egg.siblings
        if s.touching
        and s.died is not None
        and abs(s.died.middle - egg.window.middle) <= rules.limits.in_sequence
    ]
    if sequence and first_bad is not None:
        yield CauseSign(cause, "neighbours", min(1.0, len(sequence) / 2.0 + 0.25))


def shell(egg: LossEvidence, _: CauseRules) -> Iterator[CauseSign]:
    cause = Cause.SHELL
    if Shell.THIN in egg.shells:
        yield CauseSign(cause, "thin")
    elif not {Shell.ROUGH, Shell.WINDOW, Shell.NODULE}.isdisjoint(egg.shells):
        yield CauseSign(cause, "poor", 1.0, f"its shell: {shell_words(egg.shells)}")
    elif is_smooth(egg.shells):
        yield CauseSign(cause, "smooth")
    if egg.found(FindingKind.SHELL, "thin"):
        yield CauseSign(cause, "found thin", found=True)
    if egg.own_dents_early is not None and egg.own_dents_early <= egg.window.end:
        yield CauseSign(cause, "dented alone")
    if egg.water is not None and egg.water.dented_early:
        yield CauseSign(cause, "box dented")
