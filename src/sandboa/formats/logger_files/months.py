"""Months as loggers write them, in the languages of Europe."""

from typing import Final

from sandboa.formats.logger_files.headings import plain

# English, German, French, Italian, Spanish, Portuguese, Dutch, Polish, Romanian, Czech, Swedish,
# Hungarian, Turkish, Russian, Ukrainian. Compared as `plain` writes them, by how they begin.
_BEGINNINGS: Final = (
    "jan ene gen sty ian led oca янв січ",
    "feb fev fevr fév lut úno sub феб фев лют",
    "mar mär mrt mrz bře мар бер",
    "apr avr abr kwi dub nis апр кві",
    "may mai mag maj mei kvě maí máj май мая тра",
    "jun juin giu cze iun čvn čer haz июн чер",
    "jul juil lug lip iul čvc tem июл лип",
    "aug aou ago sie srp ağu avg авг сер",
    "sep set wrz zář eyl szep сен вер",
    "oct okt out ott paź říj eki окт жов",
    "nov lis kas ноя лис",
    "dec dez déc dic gru pro ara дек гру",
)
_MONTHS: Final = {
    plain(begins): number
    for number, all_of in enumerate(_BEGINNINGS, 1)
    for begins in all_of.split()
}
_LONGEST: Final = max(map(len, _MONTHS))


def month_named(name: str) -> int:
    """1 to 12; ValueError for what is no month."""
    name = plain(name)
    for length in range(_LONGEST, 2, -1):
        if name[:length] in _MONTHS:
            return _MONTHS[name[:length]]
    raise ValueError(f'"{name}" is no month')
