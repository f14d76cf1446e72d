"""What hatched against what was to be expected, in words that know how few they are."""

#: Chance below which counts do not fit what was expected (assumption: one in twenty).
ODD_BELOW = 0.05
#: Hatchlings below which nothing is said (assumption: two clutches).
ENOUGH = 10


def against_expected(seen: int, of: int, expected: float) -> str:
    """ "3 of 9 hatchlings, 2.2 expected: too few to say more".

    `expected` is the chance 0-1 of each. Exact binomial test, two-sided.
    Raises ValueError for counts that cannot be.
    """
    if not 0 <= seen <= of or not 0.0 <= expected <= 1.0:
        raise ValueError(f"{seen} of {of} at {expected} cannot be")
    counts = f"{seen} of {of} hatchlings, {expected * of:.1f} expected"
    if of < ENOUGH:
        return f"{counts}: too few to say more"
    # Here, for it takes most of a second to import and few pages ask.
    from scipy.stats import binomtest

    odd = binomtest(seen, of, expected).pvalue < ODD_BELOW
    if not odd:
        return f"{counts}: as chance has it"
    return f"{counts}: {'more' if seen > expected * of else 'fewer'} than chance explains"
