"""Everything that proves the record, made anew over the record as it is."""

import sqlite3

from sandboa.records.integrity import chain, reading_days, seals


def prove_all(connection: sqlite3.Connection) -> None:
    """Build the chain of acts, the checksums of days and the seals of rows.

    For a house that was just migrated or taken in: what lies there now is what
    counts. Inside the caller's transaction.
    """
    columns = seals.columns_of(connection)
    # Migrations may have been run up to one that was before there was any proof.
    if "hash" in columns["act"]:
        chain.seal_all(connection)
    if "reading_day" in columns:
        reading_days.work_out_all(connection)
    for table in seals.sealed_tables(columns):
        seals.reseal(connection, table)
