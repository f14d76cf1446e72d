"""What is held of a probe's readings: means of those that come close, and a tail that is added."""

import numpy as np
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from samples import DAY_S, NOW_S, lay_day
from sandboa.core.development import DevelopmentClock, ReadingSeries
from sandboa.records import readings
from sandboa.records.database import transaction
from sandboa.services.lay_day import lay_clutch
from sandboa.services.probes.commands import ProbePlace, hang_probe
from sandboa.services.series.cache import MEANS_S, SeriesCache
from sandboa.services.snapshot.cache import SnapshotCache

#: The start of ten minutes.
START_S = int(NOW_S // MEANS_S * MEANS_S) - 7_200


def hung() -> int:
    lay_clutch(lay_day(10.0, second_clutch=True), NOW_S)
    probe, _ = hang_probe("Lower", ProbePlace("26-01"), NOW_S - 9 * DAY_S, NOW_S)
    return probe.entity_id


def store(probe: int, *rows: tuple[int, float, float | None]) -> None:
    with transaction():
        readings.store(probe, readings.LIVE, list(rows), NOW_S)


def test_ten_minutes_of_readings_are_one_mean(house: SnapshotCache) -> None:
    probe = hung()
    store(probe, *((START_S + 60 * n, 30.0 + n / 10, None) for n in range(10)))
    told = SeriesCache().series(probe, START_S, NOW_S)
    assert told.times_s.tolist() == [START_S + 270]
    assert told.temperature_c.tolist() == [pytest.approx(30.45)]


def test_a_reading_alone_in_its_ten_minutes_is_itself(house: SnapshotCache) -> None:
    probe = hung()
    store(probe, (START_S + 599, 31.234, None), (START_S + 600, 30.987, None))
    told = SeriesCache().series(probe, START_S, NOW_S)
    assert told.times_s.tolist() == [START_S + 599, START_S + 600]
    assert told.temperature_c.tolist() == [31.234, 30.987]


def test_single_readings_keep_their_humidity(house: SnapshotCache) -> None:
    probe = hung()
    store(probe, (START_S, 31.0, 0.6), (START_S + 60, 31.2, None))
    rows = SeriesCache().single(probe, START_S, NOW_S)
    assert rows[:, :2].tolist() == [[START_S, 31.0], [START_S + 60, 31.2]]
    assert rows[0, 2] == 0.6
    assert np.isnan(rows[1, 2])


def test_a_probe_without_readings_has_none(house: SnapshotCache) -> None:
    probe = hung()
    assert len(SeriesCache().series(probe, 0, NOW_S).times_s) == 0
    assert SeriesCache().single(probe, 0, NOW_S).shape == (0, 3)


minutes = st.lists(st.integers(0, 90), min_size=1, max_size=12, unique=True)


@settings(
    max_examples=15, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture]
)
@given(st.lists(minutes, min_size=1, max_size=5), st.integers(-1, 40))
def test_held_through_deliveries_in_any_order_it_is_as_if_read_anew(
    house: SnapshotCache, deliveries: list[list[int]], asked_from: int
) -> None:
    probe, held = hung_again(), SeriesCache()
    for delivery in deliveries:
        store(probe, *((START_S + 60 * n, 29.0 + n % 7 / 3, n / 100) for n in delivery))
        from_s, until_s = START_S + 60 * asked_from, START_S + 5_000
        for cache in (held, SeriesCache()):
            cache.series(probe, from_s, until_s)
        one, other = (c.series(probe, START_S, until_s) for c in (held, SeriesCache()))
        assert one.times_s.tolist() == other.times_s.tolist()
        assert one.temperature_c.tolist() == other.temperature_c.tolist()
        if len(one.times_s):
            assert one.degree_s() == pytest.approx(other.degree_s(), rel=1e-12)
        singles = (c.single(probe, START_S, until_s) for c in (held, SeriesCache()))
        np.testing.assert_array_equal(*singles)


_NAMES = iter(range(10_000))


def hung_again() -> int:
    """Another probe: examples of a property share their house."""
    if not _boxes():
        lay_clutch(lay_day(10.0, second_clutch=True), NOW_S)
    name = f"Probe {next(_NAMES)}"
    return hang_probe(name, ProbePlace("26-01"), NOW_S - 9 * DAY_S, NOW_S)[0].entity_id


def _boxes() -> int:
    return len(SnapshotCache().current().boxes)


def test_means_move_what_has_developed_by_less_than_a_fifty_thousandth() -> None:
    """Of a term read each minute in a cabinet that swings as cabinets do."""
    times = np.arange(0.0, 55 * DAY_S, 60.0)
    rng = np.random.default_rng(7)
    swing = 31.0 + 1.5 * np.sin(times / 1_800) + rng.normal(0.0, 0.3, len(times))
    whole = ReadingSeries(times, swing)
    table = np.stack([times, swing], axis=1).reshape(-1, 10, 2).mean(axis=1)
    clock = DevelopmentClock()
    exact = clock.total(whole.times_s, whole.temperature_c)
    thinned = ReadingSeries(table[:, 0], table[:, 1])
    # The half spans at both ends are outside of the means.
    ends = 540.0 / (55 * DAY_S)
    told = clock.total(thinned.times_s, thinned.temperature_c) / (1.0 - ends)
    assert told == pytest.approx(exact, rel=2e-5)
