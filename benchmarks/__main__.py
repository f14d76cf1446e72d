"""`./do bench [PART ...]`: ratios beside their aims, and reports on simulated seasons and years."""

import sys

from benchmarks import (
    alarm_monitor,
    causes,
    command,
    faults,
    first_load,
    forecast,
    practice,
    readings,
    rounds,
    scale,
    screens,
    size,
    today,
    trace,
)
from benchmarks.forecast_worlds import report as forecast_worlds
from benchmarks.injected import report as faults_injected
from benchmarks.report import Ratio

_RATIOS = (readings, forecast, today, first_load)
_REPORTS = {
    "causes": causes.report,
    "command": command.report,
    "faults": faults.report,
    "faults-injected": faults_injected.report,
    "faults-injected-before": faults_injected.report_before,
    "forecasts": forecast_worlds.report,
    "practice": practice.report,
    "rounds": rounds.report,
    "trace": trace.report,
    "scale": scale.report,
    "screens": screens.report,
    "size": size.report,
    "alarm-monitor": alarm_monitor.report,
}


def main(parts: list[str]) -> int:
    """Without parts the ratios; else the reports named."""
    unknown = [part for part in parts if part not in _REPORTS]
    if unknown:
        sys.stderr.write(f"no report {unknown[0]}; there is: {', '.join(_REPORTS)}\n")
        return 2
    for part in parts:
        print(_REPORTS[part](), flush=True)
    if not parts:
        print("Ratios, this against that in one run; nothing here is a test.\n")
        for source in _RATIOS:
            for ratio in source.measure():
                print(ratio.line(), flush=True)
    return 0


__all__ = ["Ratio", "main"]

if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
