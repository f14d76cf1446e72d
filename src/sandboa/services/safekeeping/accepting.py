"""Accepting a record that was changed from outside, where no backup is better."""

from sandboa.records.database import damage, house_file, prove_open_house, transaction
from sandboa.records.integrity.check import check_database
from sandboa.services.acts.errors import Conflict
from sandboa.services.safekeeping import security_log


def accept_as_it_is(by: security_log.By, now_s: float) -> tuple[str, ...]:
    """Prove the record anew as it lies there; returns what had not been as it was recorded.

    Nothing of it is changed, and the security log says that it was accepted.
    Raises Conflict where the file itself is damaged: that cannot be accepted.
    """
    if damage():
        raise Conflict("the file itself is damaged: restore the house from a backup")
    problems = check_database(house_file()).problems
    if any(problem.startswith("damaged") for problem in problems):
        raise Conflict("the file itself is damaged: restore the house from a backup")
    if problems:
        with transaction():
            prove_open_house()
            what = f"{len(problems)} changes from outside were accepted: {problems[0]}"
            security_log.note(security_log.Kind.RESTORED, what, by, now_s)
    return problems
