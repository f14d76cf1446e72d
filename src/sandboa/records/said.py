"""How what was said is kept: as a sentence in SI units, and what it is made of beside it.

The sentence is for exports, the chain of acts and older versions; what it is
made of is for readers in other units.
"""

import json

from sandboa.core.messages import Message, Words


def kept(said: Words) -> str | None:
    """What a message is made of, as JSON; None for what has no quantity."""
    if isinstance(said, str):
        return None
    return json.dumps(said.as_json(), ensure_ascii=False, sort_keys=True)


def said(text: str, message: str | None) -> Words:
    """What was said, from its sentence and what `kept` made of it.

    What a later version kept, and this one cannot read, is told as its sentence.
    """
    if message is None:
        return text
    try:
        return Message.from_json(json.loads(message))
    except ValueError:
        return text
