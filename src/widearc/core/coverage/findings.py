"""What a week lacks or does twice, each with why and what would mend it (common practice where no
source is named; what trains what is computed).
"""

from __future__ import annotations

from collections.abc import Sequence

from widearc.core.coverage.finding import (
    BENT_CALVES,
    BENT_DEG,
    CURLS,
    CURLS_SEATED,
    FLEXED_HIP_DEG,
    FLEXED_SHARE,
    HINGES,
    KNEE,
    LEAST_RECTUS,
    LEAST_UNITS,
    LONG,
    LONG_SHARE,
    OFFSET,
    ONE_LEG,
    SIDES,
    STRAIGHT_CALVES,
    STRAIGHT_DEG,
    Finding,
    Person,
    Rule,
)
from widearc.core.coverage.habits import (
    adjacent_spine,
    isolated_sides,
    order,
    same_profile,
    two_bars,
)
from widearc.core.coverage.seen import GROUPS, SlotSeen, units
from widearc.core.curve import Action
from widearc.core.muscle import NAMES
from widearc.core.words import Said, Share, Term


def _of(slots: Sequence[SlotSeen], group: str) -> float:
    return sum(slot.units_of(group) for slot in slots)


def rectus_femoris(slots: Sequence[SlotSeen], person: Person) -> Finding | None:
    """Return that the rectus femoris is not trained: squats and presses hardly shorten it."""
    if any(_counts(s, "rectus_femoris") >= LEAST_RECTUS for s in slots):
        return None
    return Finding(
        id="rectus-femoris",
        says=Said("Rectus femoris: nothing."),
        why=Said(
            "Squats and presses lengthen it at one joint and shorten it at the other. Knee "
            "extension by itself, or with an opened hip, trains it."
        ),
        remedies=KNEE,
    )


def _counts(slot: SlotSeen, group: str) -> float:
    found = slot.worked.get(group)
    return 0.0 if found is None else found.counts


def short_head(slots: Sequence[SlotSeen], person: Person) -> Finding | None:
    """Return that the short head of biceps femoris is not trained."""
    if any(Action.KF in s.exercise.prime for s in slots):
        return None
    return Finding(
        id="short-head",
        says=Said("Short head of biceps femoris: nothing."),
        why=Said("It crosses the knee alone: only bending the knee trains it."),
        remedies=CURLS,
    )


def long_hamstrings(slots: Sequence[SlotSeen], person: Person) -> Finding | None:
    """Return that no hip extension with near-straight knees is there for the long hamstrings."""
    hinges = [
        s
        for s in slots
        if Action.HE in s.exercise.prime
        and s.traits.knee_deg[1] <= STRAIGHT_DEG
        and _counts(s, "long_hamstrings") > 0.3
    ]
    if hinges:
        return None
    squats = _of(slots, "long_hamstrings") > 0.0
    why = "Squats and presses hardly shorten them. A hinge with near-straight knees does."
    return Finding(
        id="long-hamstrings",
        says=Said("Long hamstrings: no hinge with near-straight knees."),
        why=Said(why) if squats else Said("Nothing else lengthens them at the hip under load."),
        remedies=HINGES,
    )


def gluteus_medius(slots: Sequence[SlotSeen], person: Person) -> Finding | None:
    """Return that the gluteus medius is not trained: by abduction or by offset one-leg work."""
    if _of(slots, "gluteus_medius") >= 1.0:
        return None
    return Finding(
        id="gluteus-medius",
        says=Said("Gluteus medius: hardly anything."),
        why=Said(
            "It holds the pelvis level on one leg: offset one-leg work trains it, or abduction."
        ),
        remedies=(*SIDES, *OFFSET) if person.wants_sides else (*OFFSET, *SIDES),
    )


def straight_calves(slots: Sequence[SlotSeen], person: Person) -> Finding | None:
    """Return that no calf lift keeps the knee straight."""
    if any(_is_calf(s) and s.traits.knee_deg[1] <= STRAIGHT_DEG for s in slots):
        return None
    return Finding(
        id="straight-calves",
        says=Said("Gastrocnemius: no calf lift with straight knees."),
        why=Said("It crosses the knee: bent, it is short and does little."),
        remedies=STRAIGHT_CALVES,
    )


def bent_calves(slots: Sequence[SlotSeen], person: Person) -> Finding | None:
    """Return that no calf lift bends the knee."""
    if any(_is_calf(s) and s.traits.knee_deg[0] >= BENT_DEG for s in slots):
        return None
    return Finding(
        id="bent-calves",
        says=Said("Soleus: no calf lift with bent knees."),
        why=Said(
            "With straight knees the gastrocnemius shares the work; bent, the soleus does it."
        ),
        remedies=BENT_CALVES,
    )


def _is_calf(slot: SlotSeen) -> bool:
    return Action.PF in slot.exercise.prime


def one_leg(slots: Sequence[SlotSeen], person: Person) -> Finding | None:
    """Return that nothing is done on one leg."""
    if any(s.traits.one_leg and s.exercise.family != "calf" for s in slots):
        return None
    return Finding(
        id="one-leg",
        says=Said("Nothing on one leg."),
        why=Said("A weak side hides behind two legs."),
        remedies=ONE_LEG,
    )


def flexed_curls(slots: Sequence[SlotSeen], person: Person) -> Finding | None:
    """Return that too few curls are done with flexed hips."""
    curls = [s for s in slots if s.exercise.prime == (Action.KF,)]
    total = sum(s.sets for s in curls)
    flexed = sum(s.sets for s in curls if s.traits.hip_deg >= FLEXED_HIP_DEG)
    if total <= 0 or flexed / total >= FLEXED_SHARE - 1e-9:
        return None
    return Finding(
        id="flexed-curls",
        says=Said("Curls with flexed hips: {share} of them.", share=Share(flexed / total)),
        why=Said("Flexed hips lengthen the long hamstrings: some four of five curls so."),
        slots=tuple(s.id for s in curls if s.traits.hip_deg < FLEXED_HIP_DEG),
        remedies=CURLS_SEATED,
    )


def no_lengthened(slots: Sequence[SlotSeen], person: Person) -> Finding | None:
    """Return the first group that is trained, but hardly where it is long."""
    found = units(slots)
    for group in GROUPS:
        thirds = found[group].sum(axis=0)
        total = float(thirds.sum())
        if group in LONG and total >= LEAST_UNITS and thirds[0] < LONG_SHARE * total:
            return Finding(
                id=f"long-{group}",
                says=Said(
                    "{group}: nothing where it is long.", group=Term(NAMES[group]), begins=True
                ),
                why=Said("All of its work is done in the middle and short thirds of its length."),
                remedies=LONG[group],
            )
    return None


FINDINGS: tuple[Rule, ...] = (
    rectus_femoris,
    short_head,
    long_hamstrings,
    gluteus_medius,
    straight_calves,
    bent_calves,
    one_leg,
    flexed_curls,
    no_lengthened,
    adjacent_spine,
    two_bars,
    order,
    isolated_sides,
    same_profile,
)


def findings(slots: Sequence[SlotSeen], person: Person) -> tuple[Finding, ...]:
    """Return what is found in a week; nothing planned, nothing found."""
    lifts = [s for s in slots if s.worked]
    if not lifts:
        return ()
    return tuple(f for rule in FINDINGS if (f := rule(slots, person)) is not None)
