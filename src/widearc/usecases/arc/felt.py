"""Where a set-up felt hardest, beside where it is computed to be; twice apart: what to measure
again.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from widearc import store
from widearc.core.equipment import Band, FreeMass
from widearc.core.errors import InputError, one_of
from widearc.core.statics import Curve
from widearc.core.strength import hardest
from widearc.core.words import Length, Said, Term
from widearc.usecases.client.strength import asked
from widearc.words import say

THIRDS = ("lengthened", "middle", "shortened")
TWICE = 2
FIRST = ("elastic", "machine", "iron")
"""What is measured again first, by what a load is made of: iron errs least, and a carriage's
springs pull more than its rails rub.
"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Felt:
    """Ratings of an exercise by a client: how many, how many apart, and what to measure again
    (empty: nothing).
    """

    computed: str
    said: tuple[store.FeltRow, ...]
    apart: int
    again: str


def computed_third(curve: Curve) -> str:
    """Return the third of the lift where a curve (one set-up) is hardest: by demand over the usual
    strength curve.
    """
    demand, usual = asked(curve)
    found = hardest(demand, usual)
    if found is None:
        joint = next(iter(curve.demand_nm))
        at = int(np.argmax(np.abs(curve.demand_nm[joint][0])))
    else:
        at = found[2]
    return THIRDS[min(2, 3 * at // len(curve.motion.position))]


def felt_of(con: store.Connection, trainer_id: int, client_id: int, curve: Curve) -> Felt:
    """Return a client's ratings of an exercise beside what is computed for this set-up."""
    rows = tuple(
        r
        for r in store.felt_rows(con, trainer_id, client_id)
        if r.exercise == curve.setup.exercise.id
    )
    apart = 0
    for row in reversed(rows):  # the last ones in a row: a later agreement settles the earlier
        if row.felt == row.computed:
            break
        apart += 1
    again = measure_again(curve, rows[-1].felt) if apart >= TWICE else ""
    return Felt(computed=computed_third(curve), said=rows, apart=apart, again=again)


def measure_again(curve: Curve, felt: str) -> str:
    """Return which measurement to repeat for a set-up that twice felt hardest in another third, in
    words.
    """
    at = round((THIRDS.index(felt) + 0.5) / 3 * (len(curve.motion.position) - 1))
    for index, load in enumerate(curve.setup.loads):
        if isinstance(load, Band) and index in curve.motion.load_lengths:
            apart = np.broadcast_to(curve.motion.load_lengths[index], curve.motion.shape)[0, at]
            length = float(load.own_m(apart))
            return f"weigh the band again at {say(Length(length))}, the length it has there"
    kinds = {type(load) for load in curve.setup.loads} or {FreeMass}
    return min(kinds, key=lambda kind: (FIRST.index(kind.made_of), kind.rank)).again


def keep_felt(
    con: store.Connection,
    trainer_id: int,
    client_id: int,
    curve: Curve,
    words: str,
    felt: str,
    *,
    now: str,
) -> None:
    """Keep where a set-up felt hardest, recorded for undo. InputError for another word than the
    three.
    """
    if felt not in THIRDS:
        raise InputError("felt", felt[:20], one_of(THIRDS))
    row = store.FeltRow(
        client_id=client_id,
        felt_at=now,
        exercise=curve.setup.exercise.id,
        words=words[:300],
        felt=felt,
        computed=computed_third(curve),
    )
    said = Said(
        "{exercise} felt hardest {where}",
        exercise=Term(curve.setup.exercise.name, lower=True),
        where=Term(WHERE[felt]),
    )
    with store.recorded(
        con, trainer_id, scope=f"card:{curve.setup.exercise.id}", kind="felt", words=said, now=now
    ):
        store.add_felt(con, trainer_id, row)


WHERE = {
    "lengthened": "at the lengthened end",
    "middle": "in the middle",
    "shortened": "at the shortened end",
}
