"""The house's numbers: the core's defaults, and what the keeper set instead."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property

from sandboa.core.act_kinds import ActKind
from sandboa.core.messages import Message
from sandboa.core.rules_in_force import RulesInForce, rules_in_force
from sandboa.core.settings import SETTINGS, checked_setting
from sandboa.records.facts import Act
from sandboa.records.house import Setting
from sandboa.services.acts.recording import act


@dataclass(frozen=True)
class HouseSettings:
    """Values in force, by name (units: see core.settings)."""

    values: dict[str, float]

    def __getitem__(self, name: str) -> float:
        return self.values[name]

    @cached_property
    def rules(self) -> RulesInForce:
        """What judges eggs and boxes in this house."""
        return rules_in_force(self.values)


def house_settings() -> HouseSettings:
    """What holds now."""
    return settings_of(Setting.current())


def settings_of(rows: Iterable[Setting]) -> HouseSettings:
    """The defaults, and what the keeper set by those rows."""
    own = {row.name: row.value for row in rows}
    return HouseSettings({name: own.get(name, s.default) for name, s in SETTINGS.items()})


def set_setting(name: str, value: float, now_s: float) -> Act:
    """Set a number for the house; NotPlausible outside its range or for an unknown name."""
    checked_setting(name, value)
    setting = SETTINGS[name]
    said = Message("{label}: {value}", label=setting.label, value=setting.value_words(value))
    with act(ActKind.SETTING, said, now_s) as setting_it:
        Setting.put(setting_it, {"name": name}, value=value)
    return setting_it
