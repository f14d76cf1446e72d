"""Every place of the API: one folder each, its routes and schemas side by side."""

from typing import Final

from fastapi import APIRouter

from sandboa.web.acts.routes import router as acts
from sandboa.web.alarms.routes import router as alarms
from sandboa.web.animals.routes import router as animals
from sandboa.web.bench.routes import router as bench
from sandboa.web.boxes.routes import router as boxes
from sandboa.web.breeding.routes import router as breeding
from sandboa.web.cabinets.routes import router as cabinets
from sandboa.web.calendar.routes import router as calendar
from sandboa.web.cards.routes import router as cards
from sandboa.web.clutches.routes import router as clutches
from sandboa.web.data_package.routes import router as data_package
from sandboa.web.device_readings.routes import router as device_readings
from sandboa.web.devices.routes import router as devices
from sandboa.web.eggs.routes import router as eggs
from sandboa.web.finding.routes import router as finding
from sandboa.web.genes.routes import router as genes
from sandboa.web.hatching.routes import router as hatching
from sandboa.web.hatchlings.routes import router as hatchlings
from sandboa.web.health.routes import outside as health_outside
from sandboa.web.health.routes import router as health
from sandboa.web.heard.routes import router as heard
from sandboa.web.home_network.routes import router as home_network
from sandboa.web.lay_day.routes import router as lay_day
from sandboa.web.lay_day_drafts.routes import router as lay_day_drafts
from sandboa.web.losses.routes import router as losses
from sandboa.web.messengers.routes import router as messengers
from sandboa.web.notes.routes import router as notes
from sandboa.web.old_records.routes import router as old_records
from sandboa.web.people.routes import router as people
from sandboa.web.photos.routes import router as photos
from sandboa.web.practice.routes import router as practice
from sandboa.web.practice_seasons.routes import router as practice_seasons
from sandboa.web.probes.routes import router as probes
from sandboa.web.readings.routes import router as readings
from sandboa.web.rounds.routes import router as rounds
from sandboa.web.rules.routes import router as rules
from sandboa.web.safekeeping.routes import router as safekeeping
from sandboa.web.seasons.routes import router as seasons
from sandboa.web.settings.routes import router as settings
from sandboa.web.today.routes import router as today

#: In the order in which the description lists them.
ROUTERS: Final[tuple[APIRouter, ...]] = (
    today,
    finding,
    animals,
    breeding,
    clutches,
    boxes,
    eggs,
    rounds,
    cards,
    lay_day,
    lay_day_drafts,
    notes,
    photos,
    old_records,
    probes,
    devices,
    device_readings,
    heard,
    hatching,
    hatchlings,
    losses,
    seasons,
    practice,
    practice_seasons,
    genes,
    cabinets,
    alarms,
    messengers,
    readings,
    bench,
    settings,
    people,
    calendar,
    data_package,
    safekeeping,
    health,
    health_outside,
    home_network,
    acts,
    rules,
)
