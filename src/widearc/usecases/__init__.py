"""One function for each question a user asks: reads the store, calls the core, returns one value.

May import store, formats and core; knows no web page and prints nothing. Time comes in as `now`.
"""

from widearc.usecases.arc import SECTION_WORDS, Arc, CardSection, arc, balances, card, edit_card
from widearc.usecases.bench import BandSheet, SheetError, band_sheet, save_band
from widearc.usecases.checks import check_document
from widearc.usecases.room import RoomView, kit_of, mark, room, take_back
from widearc.usecases.swap import (
    SwapAsk,
    SwapView,
    answer_request,
    decide,
    swap_view,
    wantable,
)

__all__ = [
    "SECTION_WORDS",
    "Arc",
    "BandSheet",
    "CardSection",
    "RoomView",
    "SheetError",
    "SwapAsk",
    "SwapView",
    "answer_request",
    "arc",
    "balances",
    "band_sheet",
    "card",
    "check_document",
    "decide",
    "edit_card",
    "kit_of",
    "mark",
    "room",
    "save_band",
    "swap_view",
    "take_back",
    "wantable",
]
