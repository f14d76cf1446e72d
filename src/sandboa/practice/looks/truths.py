"""What was the matter with a case, in words, and what becomes of its egg."""

from typing import Final

from sandboa.core.messages import Words
from sandboa.devices.simulation.cases import Case

#: Of each kind: what it was, and what tells it from others.
TRUTHS: Final[dict[str, str]] = {
    "sound and fresh": "A sound, fresh egg: the disc on top, red vessels around it.",
    "blank": "A slug. It glows yellow all through, with no disc and no vessel, from the first day.",
    "weak start": "It lives, with few vessels. Such eggs are kept and candled again on day 5 to 7.",
    "died in its first days": "It died in its first days. Vessels fade within days; "
    "a ring of blood is what is left of the disc.",
    "disc at the side": "It lives with its disc at the side. More than a day old it is not turned: "
    "most hatch as they lie.",
    "dents of its age": "It lives. From about two thirds on dents are usual: the animal takes up "
    "what was in the egg.",
    "dry box": "It lives in a box that dried out. Early dents in most eggs at once are the box's.",
    "thin shell": "It lives. A window in the shell loses water: it dents before its time, alone.",
    "sinking": "It died and sinks. Dents before their time in one egg alone ask for the torch.",
    "hanging": "It lives, and hangs over its clump. Its weight bends the shell where it has no "
    "support.",
    "soaked": "It lives in a box that drips. Drops on eggs start mould; the lid is wiped, "
    "the box aired.",
    "stained": "It lives. A stain with a spot of mould on it says little as long as the vessels "
    "are red.",
    "moulded and alive": "It lives under its mould. Moulded eggs do hatch: the torch tells, "
    "not the fur.",
    "moulding": "It died, and moulds. Mould is most often what comes after death.",
    "rotten": "Dead for weeks: green, furred, collapsed and foul together are certain.",
    "neighbour's smell": "It lives. A smell belongs to the box until the egg itself is found.",
    "torn": "It lives with a torn shell that weeps. A risk, not a sentence.",
    "late dents": "It lives. Deep dents in the last ten days are the animal filling its egg.",
    "sweating lid": "It lives. In the last ten days eggs give off water, and a dry lid rains.",
    "no air": "It lives in a box without a hole. Late in the term an egg needs many times the air "
    "of its first weeks.",
    "died late": "It died late. A dark body hides much; no movement and clouds above it speak "
    "against it.",
    "plump to the last": "It lives. Some eggs stay plump to the end.",
    "dry at the last": "It lives in a box that dried out late, when it can least make up for it.",
    "just pipped": "It lives, and rests behind its slit. Most are out within two days.",
    "resting in the slit": "It lives, and takes its time. Yolk is still being taken up.",
    "slit closed": "It lives behind a slit that closes over fluid, and can drown or stick.",
    "siblings out": "It lives and cannot open its shell. Its siblings are out for a day and more.",
    "dead at full term": "It died at full term. From outside it cannot be told from one that "
    "waits.",
    "late by the calendar": "It lives. Late by the calendar, not by the heat it got.",
}

#: Acts as they are told of.
_DONE: Final[dict[str, str]] = {
    "water": "water",
    "air": "air",
    "support": "a support",
    "isolate": "lying by itself",
    "help": "help at the slit",
    "candle": "candling",
}


def what_came(case: Case, act: str) -> str:
    """What becomes of the egg by that act, against leaving it alone."""
    ending, alone = case.endings[act], case.endings["leave"]
    if not any(e.hatches for e in case.endings.values()):
        said = "No animal comes of it, whatever is done."
        if not alone.others_lost:
            return said
        if ending.others_lost:
            return f"{said} Left in the box it takes a neighbour along."
        return f"{said} Taken out of the box it takes no neighbour along."
    if ending.hatches and alone.hatches:
        return "It hatches." if act == "leave" else "It hatches, as it would have left alone."
    if ending.hatches:
        return f"It hatches: {_DONE[act]} saved it. Left alone it would have died."
    if alone.hatches:
        return "It is lost by that. Left alone it would have hatched."
    saving = [words for name, words in _DONE.items() if case.endings[name].hatches]
    return f"It dies. What would have saved it: {' or '.join(saving)}."


def truth(case: Case) -> Words:
    """What it was."""
    return TRUTHS[case.kind]
