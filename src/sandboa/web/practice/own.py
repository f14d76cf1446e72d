"""Whose practice a request is about: the person's who asks, or the house's that has no people."""

from collections.abc import Iterator
from typing import Annotated

from fastapi import Depends

from sandboa.practice.files import Practice, practice_of
from sandboa.services.safekeeping.house_file import house_path
from sandboa.web.house import Asking


def _practice(asking: Asking) -> Iterator[Practice]:
    with practice_of(house_path(), asking.entity if asking else None) as practice:
        yield practice


Own = Annotated[Practice, Depends(_practice)]
