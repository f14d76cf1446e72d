"""Infertile, lethal combination, the dam's condition: what dam and sire say (rule G)."""

from collections.abc import Iterator

from sandboa.core.causes.by_heat import most_hatched
from sandboa.core.causes.evidence import LossEvidence
from sandboa.core.causes.findings import FindingKind
from sandboa.core.causes.grounds import CauseSign, percent
from sandboa.core.causes.kinds import Cause
from sandboa.core.causes.rules import CauseRules
from sandboa.core.hatching.fates import Fate
from sandboa.core.standing.signs import SignKind


def infertile(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    cause = Cause.INFERTILE
    limits = rules.limits
    if egg.slug_at_lay:
        yield CauseSign(cause, "slug at lay")
    looks = [s for s in egg.seen if s.kind is SignKind.VESSELS]
    seen = [s for s in looks if s.value in ("strong", "weak", "broken")]
    other_life = any(s.kind in (SignKind.MOVEMENT, SignKind.BODY) for s in egg.seen)
    if seen or other_life or egg.pipped is not None:
        yield CauseSign(cause, "vessels seen", 1.0 if len(seen) != 1 else _weight(seen[0].value))
    elif len([s for s in looks if s.value == "none"]) > 1:
        yield CauseSign(cause, "never vessels")
    elif looks:
        yield CauseSign(cause, "one look")
    if egg.found(FindingKind.STAGE, "yolk only"):
        yield CauseSign(cause, "yolk only", found=True)
    elif egg.known(FindingKind.STAGE):
        yield CauseSign(cause, "embryo found", found=True)
    for who, (slugs, laid) in (
        ("dam", egg.parents.dam_slugs),
        ("sire", egg.parents.sire_slugs),
    ):
        if laid >= limits.enough_eggs and slugs >= limits.high_slug_share * laid:
            yield CauseSign(
                cause, "slug share", 1.0, f"{slugs} of {laid} eggs of this {who} were slugs"
            )
            break


def _weight(value: str) -> float:
    """One look with weak vessels may have been a mistake."""
    return 0.5 if value == "weak" else 1.0


def lethal_genes(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    cause, parents = Cause.LETHAL_GENES, egg.parents
    limits = rules.limits
    if parents.can_double is None:
        return
    if not parents.can_double:
        yield CauseSign(cause, "cannot")
        return
    words = f"about {percent(parents.double_share)} of this pair's eggs get the double form"
    yield CauseSign(cause, "can", 1.0, words)
    own = [s.died for s in egg.siblings if s.died is not None]
    alike = parents.pair_lost_alike[0] + sum(
        abs(d.middle - egg.window.middle) <= limits.same_stage for d in own
    )
    fertile = parents.pair_lost_alike[1] + len(egg.siblings) + 1
    if alike:
        words = f"{alike} more of {fertile} eggs of this pair at the same stage"
        yield CauseSign(cause, "alike", 1.0, words)
    elif fertile >= limits.enough_eggs:
        yield CauseSign(cause, "not alike")


def dams_condition(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    cause, parents = Cause.DAM, egg.parents
    limits = rules.limits
    if parents.first_clutch:
        yield CauseSign(cause, "first")
    if parents.dam_before_g is not None and parents.dam_before_g < parents.lightest_g:
        yield CauseSign(cause, "light", 1.0, f"{parents.dam_before_g:.0f} g before pairing")
    if parents.dam_ill:
        yield CauseSign(cause, "ill")
    known = [s.fate for s in egg.siblings if s.fate not in (None, Fate.SLUG)]
    lost = 1 + sum(fate is not None and fate.is_loss for fate in known)
    if len(known) >= 2 and lost >= limits.whole_clutch * (len(known) + 1):
        yield CauseSign(cause, "whole clutch", 1.0, f"{lost} of {len(known) + 1} lost")
    elif most_hatched(egg):
        yield CauseSign(cause, "siblings fine")
    hatched, fertile = parents.dam_hatched
    if fertile >= limits.enough_eggs and hatched >= limits.strong_record * fertile:
        yield CauseSign(cause, "strong", 1.0, f"{hatched} of {fertile} of her other eggs hatched")
