"""Set-ups before their weights: places with what pulls, and the rows that these make when one is
asked for.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import overload

import numpy as np
from numpy.typing import NDArray

from widearc.core.arrays import Array, BoolArray
from widearc.core.kit import (
    Anchor,
    BandStock,
    Furniture,
    Piece,
    SpringStock,
    Thing,
    Total,
)
from widearc.core.setups.geometry import Geometry
from widearc.core.words import UNSAID, Mass, Said, Words, joined


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class LoadedSetup:
    """One set-up: its options (degrees, metres), pieces to pick up, and words about geometry.

    bands: with the strands of each; anchor: with how far ahead of the room's origin it is, m.
    extra: what the plain set-up does without (none for the plain one), offered as a tweak. lead_m:
    chain before the bands.
    """

    options: Mapping[str, float | str]
    pieces: tuple[Piece, ...] = ()
    kg: float = 0.0
    bands: tuple[tuple[BandStock, int], ...] = ()
    springs: tuple[tuple[SpringStock, int], ...] = ()
    anchor: tuple[Anchor, float] | None = None
    furniture: tuple[Furniture, ...] = ()
    things: tuple[Thing, ...] = ()
    machine: str = ""
    words: Words = UNSAID
    extra: Said = UNSAID
    lead_m: float = 0.0

    def items(self) -> tuple[str, ...]:
        """Return the ids of everything the set-up uses."""
        used = [piece.item for piece in self.pieces]
        used += [band.id for band, _ in self.bands] + [spring.id for spring, _ in self.springs]
        used += [self.anchor[0].id] if self.anchor else []
        used += [self.machine] if self.machine else []
        used += [f.id for f in self.furniture] + [t.id for t in self.things]
        return tuple(dict.fromkeys(used))

    def with_total(self, total: Total) -> LoadedSetup:
        """Return the set-up with a total of the stock."""
        if not total.pieces and total.kg == 0:
            return self
        # made anew, not by `replace`: a search does it for every set-up that comes close
        loaded = LoadedSetup(
            options=self.options,
            pieces=(*total.pieces, *self.pieces),
            kg=total.kg,
            bands=self.bands,
            springs=self.springs,
            anchor=self.anchor,
            furniture=self.furniture,
            things=self.things,
            machine=self.machine,
            words=self.words,
            extra=self.extra,
            lead_m=self.lead_m,
        )
        if total.left_share is None:
            return loaded
        # the right leg works, so that the left hand is the one opposite
        heavy, light = (piece.kg for piece in total.pieces[:2])
        words = Said(
            "{mass} opposite the working leg, {mass_2} beside it",
            mass=Mass(heavy),
            mass_2=Mass(light),
        )
        return replace(
            loaded,
            options={**self.options, "load_left_share": total.left_share},
            words=joined(words, self.words),
        )


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Pull:
    """What pulls besides weights: bands with the strands of each, springs, the anchor, and their
    pieces.
    """

    bands: tuple[tuple[BandStock, int], ...] = ()
    springs: tuple[tuple[SpringStock, int], ...] = ()
    anchor: tuple[Anchor, float] | None = None
    pieces: tuple[Piece, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class UnloadedSetups(Sequence[LoadedSetup]):
    """Every geometry with every pull, one after the other; a row is made when it is asked for,
    which few are.
    """

    geometries: tuple[Geometry, ...]
    pulls: tuple[Pull, ...]
    machine: str = ""
    extra: Said = UNSAID
    lead_m: float = 0.0

    def __len__(self) -> int:
        """Return how many rows there are."""
        return len(self.geometries) * len(self.pulls)

    @overload
    def __getitem__(self, index: int) -> LoadedSetup: ...
    @overload
    def __getitem__(self, index: slice) -> tuple[LoadedSetup, ...]: ...
    def __getitem__(self, index: int | slice) -> LoadedSetup | tuple[LoadedSetup, ...]:
        """Return one row, or some."""
        if isinstance(index, slice):
            return tuple(self[i] for i in range(*index.indices(len(self))))
        if not -len(self) <= index < len(self):
            raise IndexError(index)
        geometry, pull = (
            self.geometries[index // len(self.pulls)],
            self.pulls[index % len(self.pulls)],
        )
        return LoadedSetup(
            options=geometry.options,
            pieces=pull.pieces,
            bands=pull.bands,
            springs=pull.springs,
            anchor=pull.anchor,
            machine=self.machine,
            furniture=geometry.furniture,
            things=geometry.things,
            words=geometry.words,
            extra=self.extra,
            lead_m=self.lead_m,
        )


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class SetupTable:
    """Rows as places and pulls, each once, and which of them each row is, (rows,)."""

    geometries: Sequence[LoadedSetup | Geometry]
    pulls: Sequence[LoadedSetup | Pull]
    at_geometry: NDArray[np.intp]
    at_pull: NDArray[np.intp]

    @property
    def counts(self) -> dict[tuple[str, int], tuple[BandStock, Array]]:
        """Return every band and folding that any row uses, in order, with how many of it each row
        has, (rows,).
        """
        used = {(band.id, strands): band for pull in self.pulls for band, strands in pull.bands}
        return {
            (id_, strands): (
                band,
                self.of_pulls(
                    [
                        float(sum(b.id == id_ and n == strands for b, n in pull.bands))
                        for pull in self.pulls
                    ]
                ),
            )
            for (id_, strands), band in sorted(used.items(), key=lambda item: item[0])
        }

    def of_pulls(self, values: list[float]) -> Array:
        """Return for each row what its pull has, (rows,)."""
        return np.asarray(np.array(values)[self.at_pull])


def table_of(rows: Sequence[LoadedSetup]) -> SetupTable:
    """Return rows as places, told apart by their options, and pulls, by what is hooked where."""
    if isinstance(rows, UnloadedSetups):
        geometries, pulls = np.arange(len(rows.geometries)), np.arange(len(rows.pulls))
        at = np.repeat(geometries, len(pulls)), np.tile(pulls, len(geometries))
        return SetupTable(
            geometries=rows.geometries, pulls=rows.pulls, at_geometry=at[0], at_pull=at[1]
        )
    # rows out of one `Frames` share what is equal of them
    placed: dict[int, tuple[int, LoadedSetup]] = {}
    pulled: dict[tuple[int, int, int], tuple[int, LoadedSetup]] = {}
    at_geometry = [placed.setdefault(id(row.options), (len(placed), row))[0] for row in rows]
    at_pull = [
        pulled.setdefault((id(row.bands), id(row.springs), id(row.anchor)), (len(pulled), row))[0]
        for row in rows
    ]
    return SetupTable(
        geometries=[row for _, row in placed.values()],
        pulls=[row for _, row in pulled.values()],
        at_geometry=np.array(at_geometry),
        at_pull=np.array(at_pull),
    )


def pulled_otherwise(rows: Sequence[LoadedSetup], bare: int) -> NDArray[np.intp]:
    """Return the numbers of the rows that stand where a row does, at the same anchor, whatever
    bands or springs pull there; its own among them.
    """
    table = table_of(rows)
    anchors = [pull.anchor[0].id if pull.anchor is not None else "" for pull in table.pulls]
    here = np.array([anchor == anchors[table.at_pull[bare]] for anchor in anchors])
    same = (table.at_geometry == table.at_geometry[bare]) & here[table.at_pull]
    return np.flatnonzero(same)


def pieces_to_carry(rows: Sequence[LoadedSetup]) -> Array:
    """Return how many things each row asks to pick up besides what its weights are made of,
    (rows,).
    """
    if isinstance(rows, UnloadedSetups):
        pulls = np.array(
            [sum(piece.number for piece in pull.pieces) for pull in rows.pulls], dtype=float
        )
        return np.asarray(
            (np.array([[len(geometry.things)] for geometry in rows.geometries]) + pulls).ravel()
        )
    return np.array(
        [sum(p.number for p in row.pieces) + len(row.things) for row in rows], dtype=float
    )


def _users_of_each(rows: Sequence[LoadedSetup]) -> dict[str, BoolArray]:
    used: dict[str, BoolArray] = {}
    for index, row in enumerate(rows):
        for item in row.items():
            used.setdefault(item, np.zeros(len(rows), dtype=bool))[index] = True
    return used


def users_of(rows: Sequence[LoadedSetup]) -> dict[str, BoolArray]:
    """Return which rows use each thing, (rows,) by its id."""
    used: dict[str, BoolArray] = {}
    if not isinstance(rows, UnloadedSetups):
        return _users_of_each(rows)
    shape = len(rows.geometries), len(rows.pulls)
    # what all places, and what all pulls have, is asked of one row of each
    for index in range(shape[0]):
        for id_ in rows.geometries[index].used:
            used.setdefault(id_, np.zeros(shape, dtype=bool))[index] = True
    for index, row in enumerate(rows[: shape[1]]):
        for item in set(row.items()) - set(rows.geometries[0].used):
            used.setdefault(item, np.zeros(shape, dtype=bool))[:, index] = True
    return {item: there.ravel() for item, there in used.items()}
