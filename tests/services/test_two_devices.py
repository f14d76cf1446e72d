"""A lay day carried on from two devices at once, in any order: nothing is lost silently."""

from datetime import timedelta

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from samples import NOW, NOW_S
from sandboa.core.lay_day import Step
from sandboa.services.acts.errors import Conflict
from sandboa.services.lay_day import drafts
from sandboa.services.lay_day.state import EggState, LayDayState
from sandboa.services.snapshot.cache import SnapshotCache

#: What a device does: look at how it stands, or save a step with so many eggs.
LOOK = st.just(("look", 0))
SAVE = st.tuples(st.just("save"), st.integers(0, 12))
MOVES = st.lists(st.tuples(st.sampled_from("ab"), LOOK | SAVE), max_size=25)


class Device:
    """Knows the lay day as it last saw it, like a page left open."""

    def __init__(self, draft: int) -> None:
        self.draft = draft
        self.look()

    def look(self) -> None:
        now = drafts.lay_day_now(self.draft, NOW_S)
        self.revision, self.state = now.revision, now.state

    def save(self, eggs: int) -> LayDayState:
        places = [EggState(x=0.05 * n, y=0.5) for n in range(1, eggs + 1)]
        changed = self.state.model_copy(update={"eggs": places})
        self.revision = drafts.save(self.draft, self.revision, Step.COUNT, changed, NOW_S)
        self.state = changed
        return changed


@given(MOVES)
@settings(max_examples=40, suppress_health_check=[HealthCheck.function_scoped_fixture])
def test_a_save_is_kept_whole_or_refused_whole(house: SnapshotCache, moves) -> None:
    draft = drafts.begin("Costmary", None, NOW - timedelta(hours=1), NOW_S)
    devices = {"a": Device(draft), "b": Device(draft)}
    kept, revision = devices["a"].state, devices["a"].revision
    for name, (move, eggs) in moves:
        device = devices[name]
        if move == "look":
            device.look()
            continue
        stale = device.revision != revision
        try:
            saved = device.save(eggs)
        except Conflict:
            assert stale, "refused although nobody was faster"
        else:
            assert not stale, "took a save that knew nothing of the one before"
            kept, revision = saved, revision + 1
        now = drafts.lay_day_now(draft, NOW_S)
        assert (now.revision, now.state) == (revision, kept)
    drafts.set_aside(draft, True)
