"""What each term means here, in a sentence or two that read well aloud (common practice)."""

from __future__ import annotations

from dataclasses import dataclass

from widearc.core.words import Said


@dataclass(frozen=True, slots=True, kw_only=True)
class Explained:
    """A term: its name in an address, how it is written, what it means; others to read with it.

    drawn: the name of its drawing, "" for none.
    """

    id: str
    words: str
    says: Said
    also: tuple[str, ...] = ()
    drawn: str = ""


_EVERY = (
    Explained(
        id="accommodating-load",
        words="accommodating load",
        says=Said(
            "A band or chain that adds the more, the further the lift has come: little where the "
            "lift is hard, much where it is easy. Chains add weight, a band adds pull."
        ),
        also=("slack", "resistance-curve"),
        drawn="accommodating",
    ),
    Explained(
        id="action",
        words="joint action",
        says=Said(
            "What a joint does against the load: knee extension straightens the knee, hip "
            "extension opens the hip, plantarflexion presses the ball of the foot down."
        ),
    ),
    Explained(
        id="axial-load",
        words="load on the spine",
        says=Said(
            "A weight that rests on the trunk or hangs from the hands, so that it presses along "
            "the spine. A belt, a sled or a machine’s pad spares it."
        ),
    ),
    Explained(
        id="cam",
        words="cam",
        says=Said(
            "The wheel of a machine that the cable runs on, round or not: its radius at an angle "
            "times the weight is what the machine asks there."
        ),
        also=("resistance-curve",),
    ),
    Explained(
        id="demand",
        words="demand",
        says=Said(
            "How hard a load turns a joint, which the muscles must answer: the force times its "
            "moment arm, in newton metres, for one working leg."
        ),
        also=("moment-arm", "resistance-curve"),
        drawn="demand",
    ),
    Explained(
        id="dose",
        words="dose",
        says=Said(
            "Demand by the time it lasts: sets, reps and tempo belong to it. A slow rep gives more "
            "dose and no more demand."
        ),
        also=("demand", "tempo"),
    ),
    Explained(
        id="effort",
        words="effort",
        says=Said(
            "What is asked of a joint beside what it could give there, in percent of the limit: at "
            "a hundred there is not one rep left."
        ),
        also=("strength-curve", "sticking-point", "reserve"),
    ),
    Explained(
        id="friction",
        words="friction",
        says=Said(
            "What rubbing takes: lifting feels heavier than the weight, lowering lighter. It is "
            "half of the difference between a slow push and a slow return."
        ),
    ),
    Explained(
        id="gives-back-less",
        words="gives back less",
        says=Said(
            "A band pulls less on the way down than it did on the way up at the same length; what "
            "lacks has warmed the rubber."
        ),
        also=("rest-length",),
    ),
    Explained(
        id="intended",
        words="intended and actual",
        says=Said(
            "Intended is the loading that is wanted, over the range of motion; actual is what a "
            "stand-in asks, set up as listed. Both are drawn alike on every page."
        ),
        also=("match",),
    ),
    Explained(
        id="lengthened",
        words="lengthened and shortened",
        says=Said(
            "Where the working muscle is long, and where it is short: for knee extension bent and "
            "straight, for hip extension folded and upright. Drawn left and right."
        ),
        also=("range-of-motion",),
        drawn="lengthened",
    ),
    Explained(
        id="level",
        words="level",
        says=Said(
            "How much work a stand-in asks of the wanted joints in all, beside what is wanted: "
            "under a hundred percent it is too light, over it too heavy."
        ),
        also=("match", "shape", "reach"),
    ),
    Explained(
        id="line-of-force",
        words="line of force",
        says=Said(
            "The line along which everything beyond a joint pushes or pulls. The further it passes "
            "from the joint, the harder it turns it."
        ),
        also=("moment-arm",),
        drawn="demand",
    ),
    Explained(
        id="match",
        words="match",
        says=Said(
            "How like the wanted loading a stand-in is, in percent: the work in common at each "
            "angle, joint by joint. What is asked besides counts against it."
        ),
        also=("shape", "reach", "level"),
        drawn="match",
    ),
    Explained(
        id="measured",
        words="measured, described, assumed",
        says=Said(
            "Where a number is from: read with a scale or tape, told by the maker or a stamp, or a "
            "usual value because nobody said. The weakest speaks for what is computed."
        ),
        also=("plus-minus",),
    ),
    Explained(
        id="moment-arm",
        words="moment arm",
        says=Said(
            "The shortest way from a joint to the line of force. The same weight asks twice as "
            "much at twice the arm."
        ),
        also=("demand", "line-of-force"),
        drawn="demand",
    ),
    Explained(
        id="partials",
        words="partials",
        says=Said("Reps over a part of the range, most often where the muscle is lengthened."),
        also=("range-of-motion",),
    ),
    Explained(
        id="plus-minus",
        words="± behind a number",
        says=Said(
            "How far it may be off, since scales, tapes and bodies are: two times out of three it "
            "lies within that."
        ),
        also=("measured",),
    ),
    Explained(
        id="range-of-motion",
        words="range of motion",
        says=Said("From which angle to which a joint moves under the load in one rep."),
        also=("lengthened", "reach"),
    ),
    Explained(
        id="reach",
        words="reach",
        says=Said(
            "How much of the wanted range a stand-in loads at all: a hundred percent is all of it."
        ),
        also=("match", "range-of-motion"),
    ),
    Explained(
        id="reserve",
        words="reps in reserve",
        says=Said("How many good reps would have been left at the end of a set."),
        also=("effort",),
    ),
    Explained(
        id="resistance-curve",
        words="resistance curve",
        says=Said(
            "Demand drawn over the range of motion: where the load is heavy, and where it is light."
        ),
        also=("demand", "strength-curve"),
        drawn="curves",
    ),
    Explained(
        id="rest-length",
        words="rest length",
        says=Said("How long a band is when it just does not pull yet."),
        also=("slack", "stretch"),
    ),
    Explained(
        id="shape",
        words="shape",
        says=Said(
            "How alike two resistance curves are when their levels are made the same: heavy and "
            "light at the same angles."
        ),
        also=("match", "level"),
    ),
    Explained(
        id="slack",
        words="slack",
        says=Said(
            "A band no longer than at rest, or a spring before its first mark, pulls nothing: that "
            "part of the range is done without it."
        ),
        also=("rest-length", "accommodating-load"),
        drawn="slack",
    ),
    Explained(
        id="steadiness",
        words="steadiness",
        says=Said(
            "From 1 to 5, how little balance an exercise asks: a machine has 5, one leg in the "
            "open with a free weight 1."
        ),
    ),
    Explained(
        id="sticking-point",
        words="sticking point",
        says=Said("The angle at which a rep fails first: where effort is greatest."),
        also=("effort",),
        drawn="curves",
    ),
    Explained(
        id="strength-curve",
        words="strength curve",
        says=Said(
            "The most that a joint can answer, over its angles. It is published for usual people; "
            "your client’s own logged sets scale it."
        ),
        also=("effort", "resistance-curve"),
        drawn="curves",
    ),
    Explained(
        id="stretch",
        words="stretch",
        says=Said(
            "A band’s length over its rest length. Past two and a half times it warns, past three "
            "times the set-up is refused."
        ),
        also=("rest-length",),
    ),
    Explained(
        id="tempo",
        words="tempo",
        says=Said(
            "How many seconds lifting and lowering take. A fast start asks more than the weight, "
            "because it must be sped up."
        ),
    ),
    Explained(
        id="ladder",
        words="ladder",
        says=Said(
            "All that a place can load a lift with, from the least to the most: its rungs. A step "
            "is how much more the next one asks."
        ),
        also=("whole-effort",),
    ),
    Explained(
        id="whole-effort",
        words="whole effort",
        says=Said(
            "What hips, knees and ankles of both legs are asked together over a lift, beside what "
            "people usually can: one number by which the rungs of a ladder stand in order."
        ),
        also=("demand", "effort", "ladder"),
    ),
)

TERMS = tuple(sorted(_EVERY, key=lambda term: term.words.casefold().lstrip("± ")))
"""Every term, in the order of the alphabet."""

BY_ID = {term.id: term for term in TERMS}
