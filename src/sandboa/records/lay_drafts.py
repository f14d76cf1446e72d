"""Lay days under way: kept as they stand after every step, until the clutch is recorded."""

from peewee import AutoField, IntegerField, TextField

from sandboa.records.facts import Act, Entity, Sealed


class LayDraft(Sealed):
    """`state` is JSON; `revision` rises with every save, so two devices notice each other.

    It counts as recorded while the act `recorded_by` stands.
    """

    id = AutoField()
    started_s = IntegerField()
    saved_s = IntegerField()
    revision = IntegerField()
    step = TextField()
    state = TextField()
    recorded_by_id = IntegerField(null=True)
    set_aside = IntegerField(default=0)


def new_draft(started_s: int, step: str, state: str) -> LayDraft:
    """A draft with an id that photos can point at."""
    entity = Entity.create(kind="lay_draft")
    return LayDraft.create(
        id=entity.id,
        started_s=started_s,
        saved_s=started_s,
        revision=1,
        step=step,
        state=state,
    )


def save_draft(draft: int, revision: int, saved_s: int, step: str, state: str) -> bool:
    """Store the state unless another device has saved since `revision`; whether it was stored."""
    changed = LayDraft.change(
        (LayDraft.id == draft) & (LayDraft.revision == revision),
        revision=revision + 1, saved_s=saved_s, step=step, state=state,
    )  # fmt: skip
    return bool(changed)


def drafts_kept(*, aside: bool) -> list[LayDraft]:
    """Drafts that are set aside, or are not, oldest first; recorded ones too."""
    rows = LayDraft.select().where(LayDraft.set_aside == int(aside)).order_by(LayDraft.started_s)
    return list(rows)


def draft_numbered(draft_id: int) -> LayDraft | None:
    """The draft with that id, None for no such one."""
    found: LayDraft | None = LayDraft.get_or_none(LayDraft.id == draft_id)
    return found


def all_drafts() -> list[LayDraft]:
    """Every draft there is, recorded and set aside ones too."""
    return list(LayDraft.select())


def mark_recorded(draft_id: int, recording: Act) -> None:
    """Note the act that recorded the clutch of a draft."""
    LayDraft.change(LayDraft.id == draft_id, recorded_by_id=recording.id)


def put_aside(draft_id: int, aside: bool) -> None:
    """Note that a draft is set aside, or is not any more."""
    LayDraft.change(LayDraft.id == draft_id, set_aside=int(aside))


def recording_act(draft: LayDraft) -> Act | None:
    """The act that recorded the clutch of a draft, None while none did."""
    return Act.get_or_none(Act.id == draft.recorded_by_id) if draft.recorded_by_id else None
