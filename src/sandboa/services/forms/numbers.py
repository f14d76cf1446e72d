"""What the forms of methods and of the house's numbers hold now."""

from typing import Any

from pydantic import TypeAdapter

from sandboa.core.methods import Method
from sandboa.core.settings import require_setting
from sandboa.services.acts.preconditions import clutch_called
from sandboa.services.acts.revisions import Form
from sandboa.services.clutches.methods import HouseMethod, method_of_clutch
from sandboa.services.safekeeping.backups import chosen_backup_folder
from sandboa.services.snapshot.settings import HouseSettings

_METHOD: TypeAdapter[Any] = TypeAdapter(Method)


def method_form(held: HouseMethod) -> Form:
    """A house method."""
    return {"method": _METHOD.dump_python(held.method, mode="json"), "chosen": held.chosen}


def clutch_method_form(code: str) -> Form:
    """A clutch's own copy of a method; NotFound for an unknown clutch."""
    method = method_of_clutch(clutch_called(code).entity_id)
    form: Form = _METHOD.dump_python(method, mode="json")
    return form


def setting_form(name: str, settings: HouseSettings) -> Form:
    """One of the house's numbers; NotPlausible for a name it does not have."""
    require_setting(name)
    return {"value": settings[name]}


def backup_folder_form() -> Form:
    """Where backups go as set in Settings, None for beside the house."""
    return {"folder": chosen_backup_folder()}
