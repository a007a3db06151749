"""What a movement yields: points, segments and forces at every sample of every set-up."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from types import MappingProxyType

import numpy as np

from widearc.core.arrays import Array, BoolArray
from widearc.core.geometry import spread
from widearc.core.units import G
from widearc.core.words import Said


@dataclass(frozen=True, slots=True, kw_only=True)
class Joint:
    """A joint: the segments beyond it and the sign that makes its demand agree with the
    conventions.

    distal: everything on the far side. sign: demand = sign × moment (anticlockwise) of the distal
    forces about the joint, for a person who faces +x.
    """

    name: str
    distal: frozenset[str]
    sign: int


def _joint(name: str, distal: str, sign: int) -> Joint:
    return Joint(name=name, distal=frozenset(distal.split()), sign=sign)


JOINTS: Mapping[str, Joint] = MappingProxyType(
    {
        j.name: j
        for j in (
            _joint("mtp", "toes", 1),
            _joint("ankle", "toes foot", 1),
            _joint("knee", "toes foot shank", -1),
            _joint("hip", "toes foot shank thigh", 1),
            _joint("rear_ankle", "rear_foot", 1),
            _joint("rear_knee", "rear_foot rear_shank", -1),
            _joint("rear_hip", "rear_foot rear_shank rear_thigh", 1),
            _joint("other_ankle", "other_foot", 1),
            _joint("other_knee", "other_foot other_shank", -1),
            _joint("other_hip", "other_foot other_shank other_thigh", 1),
            _joint("free_hip", "free_foot free_shank free_thigh", 1),
            # seen from the front the other leg opens clockwise; the trunk leans to the working side
            _joint("other_abduction", "other_foot other_shank other_thigh", -1),
            _joint("lumbar", "trunk arms", -1),
            # a leg opens anticlockwise, seen with x to its side: gravity and bands turn it back
            _joint("hip_abduction", "toes foot shank thigh", -1),
            _joint("shoulder", "arms", 1),
        )
    }
)
"""Every joint the families use. Demands: mechanics, conventions."""

LEG_JOINTS = ("hip", "knee", "ankle")
WORKING_JOINTS = (*LEG_JOINTS, "hip_abduction")


def place_of(joint: str) -> str:
    """Return the name of the point about which a joint turns: both hips share one in the side
    view.
    """
    if joint == "other_abduction":
        return "other_hip"
    return "hip" if joint.endswith("_hip") or joint == "hip_abduction" else joint


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Segment:
    """A rigid part of the body: mass kg, centre of mass m (2, set-ups, samples)."""

    name: str
    mass_kg: float
    com: Array


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Force:
    """A force N on a segment at a point m, both (2, set-ups, samples); source: "load 0", "contact
    foot".

    works: an outside contact whose point moves along its force (a held handle): its work counts in
    the audit. upright: known to have no level part, as weights are.
    """

    segment: str
    point: Array
    force: Array
    source: str
    works: bool = False
    upright: bool = False


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Inertia:
    """A load's mass that must be sped up: kg at `point` of a segment, or, with `towards`, along a
    line only.

    towards: unit vector (2, …) along which the mass moves with `travel` (m); kg may vary along the
    lift.
    """

    segment: str
    point: Array
    kg: Array
    towards: Array | None = None
    travel: Array | None = None


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Notice:
    """A warning about some set-ups: `where` is a mask (set-ups,)."""

    code: str
    text: Said
    where: BoolArray


@dataclass(slots=True, kw_only=True, eq=False)
class Wrench:
    """All forces on a segment as one, about the room's origin: every joint asks for its moment of
    them.

    up_n, level_n: the sum of the forces' parts (N, y up and x forward; None where none is level).
    vertical_nm: x times the vertical ones, couples added; level_nm: y times the level ones. Each
    broadcasts to (set-ups, samples).
    """

    up_n: Array | float = 0.0
    vertical_nm: Array | float = 0.0
    level_n: Array | None = None
    level_nm: Array | float = 0.0


@dataclass(slots=True, kw_only=True, eq=False)
class Motion:
    """One exercise moved through its range in many set-ups at once.

    position (samples,) 0 to 1; points m, angles rad, energies J, all (…, set-ups, samples).
    speeding: in a fast lift, the force (N) that each line-bound load's inertia adds along its line.
    turning: moments of inertia that a machine adds to a segment (segment, way, kg·m²).
    couples: outside moments (segment, N·m anticlockwise, source). closure: adds the contacts that
    balance the forces so far; asked again when inertia joins them (then `dynamic` is set).
    legs: working legs that share the work alike; plane_cos (set-ups, 1): cosine of the leg plane's
    turn, by which the sagittal moments of the leg joints are divided. complete: every force on the
    body is known, so demands can be had from either side. failed: why a set-up cannot be done, by
    index, with the position of the first bad sample; its arrays hold NaN there.
    """

    position: Array
    shape: tuple[int, int]
    legs: int = 1
    plane_cos: Array = field(default_factory=lambda: np.ones((1, 1)))
    points: dict[str, Array] = field(default_factory=dict)
    angles: dict[str, Array] = field(default_factory=dict)
    segments: list[Segment] = field(default_factory=list)
    forces: list[Force] = field(default_factory=list)
    couples: list[tuple[str, Array, str]] = field(default_factory=list)
    inertias: list[Inertia] = field(default_factory=list)
    turning: list[tuple[str, float, Array]] = field(default_factory=list)
    speeding: list[tuple[Inertia, Array]] = field(default_factory=list)
    closure: Callable[[Motion], None] | None = None
    load_lengths: dict[int, Array] = field(default_factory=dict)
    load_gravity: list[Callable[[], Array]] = field(default_factory=list)
    load_elastic: list[Callable[[], Array]] = field(default_factory=list)
    friction_work_j: Array | float = 0.0
    path_travel: Array | None = None
    path_force: Array | None = None
    complete: bool = True
    dynamic: bool = False
    notices: list[Notice] = field(default_factory=list)
    assumptions: list[Said] = field(default_factory=list)
    marks: dict[str, Array] = field(default_factory=dict)
    failed: dict[int, tuple[float, Said]] = field(default_factory=dict)
    _sums: dict[str, Wrench] = field(init=False, default_factory=dict)
    _counted: tuple[int, int] = field(init=False, default=(0, 0))

    def full(self, array: Array | float) -> Array:
        """Return an array broadcast to (…, set-ups, samples)."""
        a = np.asarray(array, dtype=float)
        if a.shape[-2:] == self.shape:
            return a
        return spread(a, (*a.shape[:-2], *self.shape) if a.ndim > 2 else self.shape)

    def add_segment(self, name: str, mass_kg: float, com: Array) -> None:
        """Add a segment and its weight."""
        self.segments.append(Segment(name=name, mass_kg=mass_kg, com=com))
        weight = np.zeros((2, *(np.shape(mass_kg) or (1, 1))))
        weight[1] = -mass_kg * G
        self.forces.append(
            Force(segment=name, point=com, force=weight, source=f"weight {name}", upright=True)
        )

    def add_force(
        self, segment: str, point: Array, force: Array, source: str, *, works: bool = False
    ) -> None:
        """Add a load or contact force."""
        self.forces.append(
            Force(segment=segment, point=point, force=force, source=source, works=works)
        )

    def close(self, closure: Callable[[Motion], None]) -> None:
        """Add the contacts that balance what acts so far, and remember how."""
        self.closure = closure
        closure(self)

    def wrenches(self) -> dict[str, Wrench]:
        """Return the forces on each segment summed up, by its name: each force is added once, when
        it has joined.
        """
        forces, couples = self._counted
        if len(self.forces) < forces or len(self.couples) < couples:
            forces, couples = 0, 0
            self._sums = {}
        for item in self.forces[forces:]:
            own = self._sums.setdefault(item.segment, Wrench())
            own.up_n = own.up_n + item.force[1]
            own.vertical_nm = own.vertical_nm + item.point[0] * item.force[1]
            if not item.upright and item.force[0].any():
                own.level_n = item.force[0] if own.level_n is None else own.level_n + item.force[0]
                own.level_nm = own.level_nm + item.point[1] * item.force[0]
        for segment, moment, _ in self.couples[couples:]:
            own = self._sums.setdefault(segment, Wrench())
            own.vertical_nm = own.vertical_nm + moment
        self._counted = len(self.forces), len(self.couples)
        return self._sums

    def contact_work_j(self) -> Array:
        """Return the work (J, (set-ups, samples)) that moving contacts put in since the start."""
        total = np.zeros(self.shape)
        for item in self.forces:
            if item.works:
                force, point = self.full(item.force), self.full(item.point)
                mean = 0.5 * (force[..., 1:] + force[..., :-1])
                steps = (mean * np.diff(point, axis=-1)).sum(axis=0)
                total[:, 1:] += np.cumsum(steps, axis=1)
        return total

    def total_force(self) -> Array:
        """Return the sum of all forces so far, N, (2, set-ups, samples)."""
        total = np.zeros((2, *self.shape))
        for own in self.wrenches().values():
            total[1] += own.up_n
            if own.level_n is not None:
                total[0] += own.level_n
        return total

    def moment_about(self, point: Array) -> Array:
        """Return the moment of all forces so far about a point, N·m anticlockwise, (set-ups,
        samples).
        """
        vertical, level = self.moments_about(point, self.wrenches().values())
        return vertical + level

    def moments_about(self, point: Array, sums: Iterable[Wrench]) -> tuple[Array, Array]:
        """Return the moment of vertical forces and couples, and of level forces, about a point, as
        `moment_about`.
        """
        vertical, level = np.zeros(self.shape), np.zeros(self.shape)
        for own in sums:
            vertical += own.vertical_nm
            vertical -= point[0] * own.up_n
            if own.level_n is not None:
                level += point[1] * own.level_n
                level -= own.level_nm
        return vertical, level

    def gravity_j(self) -> Array:
        """Return the energy of height of body and equipment, J, (set-ups, samples)."""
        total = np.zeros(self.shape)
        for part in self.segments:
            total = total + part.mass_kg * G * part.com[1]
        for part_j in self.load_gravity:
            total = total + part_j()
        return total

    def elastic_j(self) -> Array:
        """Return the energy stored in bands and springs, J, (set-ups, samples)."""
        total = np.zeros(self.shape)
        for part_j in self.load_elastic:
            total = total + part_j()
        return total

    def fail(self, bad: BoolArray, reason: Said) -> None:
        """Record that set-ups fail where `bad` (set-ups, samples) is true, with the first bad
        position.
        """
        if not bad.any():
            return
        for row in np.flatnonzero(np.any(bad, axis=1)):
            first = float(self.position[np.argmax(bad[row])])
            self.failed.setdefault(int(row), (first, reason))

    def notice(self, code: str, text: Said, where: BoolArray | bool = True) -> None:
        """Add a warning for the set-ups where it holds."""
        if where is True or np.any(where):
            mask = np.broadcast_to(np.asarray(where), (self.shape[0],))
            self.notices.append(Notice(code=code, text=text, where=mask))
