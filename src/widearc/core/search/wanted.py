"""What is wanted, as the search needs it: from an exercise as set up, or from an intent that stands
by itself.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from widearc.core.body import Body
from widearc.core.dose import RepStyle, Tempo
from widearc.core.exercises import Exercise
from widearc.core.intent import Intent, Shape
from widearc.core.matching import (
    Target,
    compared_style,
    reshaped,
    styled,
    target_of,
    target_of_intent,
)
from widearc.core.search.uncertainty import WantedUncertainty, wanted_uncertainty
from widearc.core.setups import Range
from widearc.core.statics import BodyUncertainty, Curve
from widearc.core.units import to_deg

USUAL_KNEE = (
    95.0,
    10.0,
)  # where nothing wanted bends the knee: stand-ins that do use this range (assumed)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Wanted:
    """A target with where it is from.

    knee: the knee range that stand-ins are set up for. exercise: the one to replace (None: an
    intent). curve: its curve (None: an intent). style, tempo: how that is done.
    """

    target: Target
    knee: Range
    exercise: Exercise | None = None
    curve: Curve | None = None
    intent: Intent | None = None
    shape: Shape = Shape.ORIGINAL
    style: RepStyle = field(default_factory=RepStyle)
    tempo: Tempo = field(default_factory=Tempo)

    def uncertainty(self, body: BodyUncertainty) -> WantedUncertainty:
        """Return what is wanted one standard error of each source away; an intent does not move."""
        if self.curve is None:
            return WantedUncertainty(body=body)
        who = self.curve.setup.body
        return wanted_uncertainty(
            self.curve,
            body,
            lambda target: styled(reshaped(target, self.shape, who), self.style, self.tempo),
        )


PLAIN, USUAL_TEMPO = RepStyle(), Tempo()


def wanted_of(
    asked: Curve | Intent,
    body: Body,
    shape: Shape = Shape.ORIGINAL,
    style: RepStyle = PLAIN,
    tempo: Tempo = USUAL_TEMPO,
    *,
    by_dose: bool = False,
) -> Wanted:
    """Return what is wanted from a curve (one set-up, laid out in a shape) or from an intent;
    by_dose: by time under load, else by demand, whatever style and tempo.

    Raises TargetError where no positive work is wanted.
    """
    if isinstance(asked, Intent):
        knee = next((part for part in asked.parts if part.action.joint == "knee"), None)
        deep, end = USUAL_KNEE
        if knee is not None:
            deep, end = max(knee.from_deg, knee.to_deg), min(knee.from_deg, knee.to_deg)
        return Wanted(
            target=target_of_intent(asked, body, by_dose=by_dose),
            knee=Range(from_deg=deep, to_deg=end),
            intent=asked,
        )
    style = style if by_dose else compared_style(style)
    bend = to_deg(asked.motion.angles["knee"][0]) if "knee" in asked.motion.angles else USUAL_KNEE
    target = styled(reshaped(target_of(asked), shape, body), style, tempo)
    return Wanted(
        target=target,
        knee=Range(from_deg=round(float(bend[0]), 2), to_deg=round(float(bend[-1]), 2)),
        exercise=asked.setup.exercise,
        curve=asked,
        shape=shape,
        style=style,
        tempo=tempo,
    )
