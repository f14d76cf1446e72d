"""Requests and responses of this place."""

from pydantic import BaseModel


class PackageTakenResponse(BaseModel):
    """What of a package was taken in: rows by table, and how many in all."""

    rows: int
    tables: dict[str, int]


class HouseResponse(BaseModel):
    """The folder on the machine that serves it, and the size of its database."""

    folder: str
    database_bytes: int
