"""One function for each question a user asks: reads the store, calls the core, returns one value.

May import store, formats and core; knows no web page and prints nothing. Time comes in as `now`.
"""

from widearc.core.muscle import MuscleUse
from widearc.usecases.arc.arc import (
    SECTION_WORDS,
    Arc,
    CardSection,
    arc_of,
    balances,
    card,
    card_scope,
    edit_card,
    muscles,
)
from widearc.usecases.arc.felt import THIRDS, WHERE, felt_of, keep_felt
from widearc.usecases.arc.whole import whole_of
from widearc.usecases.bench.bands import BandSheet, band_sheet, save_band
from widearc.usecases.client.client import change_client, new_client, remove_client
from widearc.usecases.client.strength import (
    Effort,
    effort_words,
    efforts,
    equal_reps,
    log_set,
    remove_set,
    strength_of,
)
from widearc.usecases.holdings import Holdings
from widearc.usecases.intent.intents import SCOPE as INTENTS
from widearc.usecases.intent.intents import (
    intent_of_curve,
    intent_words,
    keep_intent,
    remove_intent,
)
from widearc.usecases.room.elsewhere import elsewhere_of
from widearc.usecases.room.exchange import ImportPlan, export_kit, import_kit, plan_import
from widearc.usecases.room.items import (
    ItemFacts,
    add_item,
    change_item,
    duplicate_item,
    keep_settings,
    remove_item,
)
from widearc.usecases.room.kit import stock_of
from widearc.usecases.room.places import change_place, copy_place, new_place, remove_place
from widearc.usecases.room.room import RoomView, mark, mark_zone, room_view, see, take_back
from widearc.usecases.safe.safe import (
    language_of,
    put_how_away,
    reading_of,
    set_by_feel,
    set_language,
    set_time_zone,
    set_units,
    show_how_again,
    time_zone,
    units_of,
)
from widearc.usecases.selfcheck import check_document
from widearc.usecases.sheet import SheetError
from widearc.usecases.swap.checks import set_up_checks
from widearc.usecases.swap.instead import (
    changes,
    columns_of,
    drop_favourite,
    give_back,
    keep_favourite,
    kinder_ways,
    muscle_column,
    reps_of,
    set_aside,
)
from widearc.usecases.swap.request import answer_request
from widearc.usecases.swap.swap import (
    SwapView,
    client_notes,
    decide,
    first_of,
    harder_of,
    swap_view,
)
from widearc.usecases.swap.wanted import AS_USUAL, SwapAsk, not_wantable, takes_kg, wantable
from widearc.usecases.week.week import (
    MOST_TIMES,
    asked_words,
    plan,
    plan_again,
    unplan,
    week_plan,
    worth_buying,
)

__all__ = [
    "AS_USUAL",
    "INTENTS",
    "MOST_TIMES",
    "SECTION_WORDS",
    "THIRDS",
    "WHERE",
    "Arc",
    "BandSheet",
    "CardSection",
    "Effort",
    "Holdings",
    "ImportPlan",
    "ItemFacts",
    "MuscleUse",
    "RoomView",
    "SheetError",
    "SwapAsk",
    "SwapView",
    "add_item",
    "answer_request",
    "arc_of",
    "asked_words",
    "balances",
    "band_sheet",
    "card",
    "card_scope",
    "change_client",
    "change_item",
    "change_place",
    "changes",
    "check_document",
    "client_notes",
    "columns_of",
    "copy_place",
    "decide",
    "drop_favourite",
    "duplicate_item",
    "edit_card",
    "effort_words",
    "efforts",
    "elsewhere_of",
    "equal_reps",
    "export_kit",
    "felt_of",
    "first_of",
    "give_back",
    "harder_of",
    "import_kit",
    "intent_of_curve",
    "intent_words",
    "keep_favourite",
    "keep_felt",
    "keep_intent",
    "keep_settings",
    "kinder_ways",
    "language_of",
    "log_set",
    "mark",
    "mark_zone",
    "muscle_column",
    "muscles",
    "new_client",
    "new_place",
    "not_wantable",
    "plan",
    "plan_again",
    "plan_import",
    "put_how_away",
    "reading_of",
    "remove_client",
    "remove_intent",
    "remove_item",
    "remove_place",
    "remove_set",
    "reps_of",
    "room_view",
    "save_band",
    "see",
    "set_aside",
    "set_by_feel",
    "set_language",
    "set_time_zone",
    "set_units",
    "set_up_checks",
    "show_how_again",
    "stock_of",
    "strength_of",
    "swap_view",
    "take_back",
    "takes_kg",
    "time_zone",
    "units_of",
    "unplan",
    "wantable",
    "week_plan",
    "whole_of",
    "worth_buying",
]
