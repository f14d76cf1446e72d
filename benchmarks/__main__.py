"""`./do bench`: prints each ratio beside its aim."""

from benchmarks import first_load, forecast, readings, today
from benchmarks.report import Ratio


def main() -> None:
    print("Ratios, this against that in one run; nothing here is a test.\n")
    for part in (readings, forecast, today, first_load):
        for ratio in part.measure():
            print(ratio.line(), flush=True)


__all__ = ["Ratio", "main"]

if __name__ == "__main__":
    main()
