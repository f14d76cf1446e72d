"""Write what became of every style into the page about logger files."""

import sys

from benchmarks.logger_files.page import PAGE, written
from benchmarks.logger_files.report import report

PAGE.write_text(written(PAGE.read_text(encoding="utf-8"), report()), encoding="utf-8")
sys.stdout.write(report() + "\n")
