"""A recognised fault as the Cabinet and the Clutch place show it."""

from pydantic import BaseModel

from sandboa.core.climate.faults import FaultKind
from sandboa.services.climate.faults import CabinetFault
from sandboa.services.snapshot.snapshot import Snapshot
from sandboa.web.schemas.common import Moment, at, at_or_none


class FaultResponse(BaseModel):
    """A fault in the record; open while `end` is null. `delay_days` > 0: pips come later."""

    kind: FaultKind
    start: Moment
    end: Moment | None
    shelves: list[str]
    probes: list[str]
    probe_ids: list[int]
    degree_hours: float
    largest_c: float
    delay_days: float


def fault_told(snapshot: Snapshot, told: CabinetFault) -> FaultResponse:
    """The services' fault in names and moments."""
    fault = told.fault
    return FaultResponse(
        kind=fault.kind,
        start=at(fault.start_s),
        end=at_or_none(fault.end_s),
        shelves=list(told.shelves),
        probes=[snapshot.probes[p].name for p in told.probes],
        probe_ids=list(told.probes),
        degree_hours=fault.degree_hours,
        largest_c=fault.largest_c,
        delay_days=told.delay_days,
    )
