"""The one place where a message becomes a sentence for a reader: units, zone, dates.

Screen, e-mail, calendar, PDF and command line ask here; nobody turns a finished sentence.
"""

from sandboa.words.reader import SI_READER, Reader
from sandboa.words.sentences import sentence, to_reader

__all__ = ["SI_READER", "Reader", "sentence", "to_reader"]
