"""Published tables and formulas."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from widearc.core.body import Body
from widearc.core.body import segments as s
from widearc.core.equipment import fit_mooney_rivlin
from widearc.core.strength import strength_nm
from widearc.usecases.selfcheck.check import Check, Group

WINTER = (
    "Winter, Biomechanics and Motor Control of Human Movement, 4th ed. 2009, table 4.1, fig. 4.1 "
    "(from memory)"
)


TRELOAR = (
    "Treloar 1944, Trans. Faraday Soc. 40:59-70, simple tension of 8 % sulphur rubber (from memory)"
)


ANDERSON = (
    "Anderson, Madigan & Nussbaum, J. Biomech. 40 (2007) 3105-3113, isometric (coefficients from "
    "memory)"
)


# stretch λ and nominal stress, MPa, up to the stretch at which a band is refused
TRELOAR_STRETCH = (1.02, 1.12, 1.24, 1.39, 1.61, 1.89, 2.17, 2.42, 3.01)
TRELOAR_MPA = (0.026, 0.137, 0.227, 0.315, 0.411, 0.506, 0.588, 0.671, 0.852)


def _treloar() -> Sequence[float]:
    """Return the largest miss of the fitted rubber law over the table, % of the table's greatest
    stress.
    """
    fit = fit_mooney_rivlin(TRELOAR_STRETCH, tuple(100.0 * v for v in TRELOAR_MPA), 1.0)
    return [100.0 * max(abs(r) for r in fit.residuals_n) / (100.0 * max(TRELOAR_MPA))]


def _peak(action: str) -> tuple[float, float]:
    angle = np.deg2rad(np.arange(-30, 120, 0.5))
    got = strength_nm(action, angle, mass_kg=80, stature_m=1.8, sex="male")
    return float(got.max()), float(np.rad2deg(angle[np.argmax(got)]))


PUBLISHED = (
    Check(
        group=Group.PUBLISHED,
        name="segment masses add up to the body",
        unit="of body mass",
        expected=(1.0,),
        tolerance=1e-9,
        source=WINTER,
        compute=lambda: [2 * (s.M_FOOT + s.M_SHANK + s.M_THIGH + s.M_ARM) + s.M_TRUNK],
    ),
    Check(
        group=Group.PUBLISHED,
        name="length of foot, shank, thigh, hip to shoulder at 1.80 m",
        unit="m",
        expected=(0.2736, 0.4428, 0.441, 0.5184),
        tolerance=5e-4,
        source=WINTER,
        compute=lambda: [Body().foot_m, Body().shank_m, Body().thigh_m, Body().trunk_m],
    ),
    Check(
        group=Group.PUBLISHED,
        name="rubber law on Treloar's tension data, largest miss up to 3 times the length",
        unit="% of the greatest stress",
        expected=(0.0,),
        tolerance=3.0,
        source=TRELOAR,
        compute=_treloar,
    ),
    *(
        Check(
            group=Group.PUBLISHED,
            name=f"greatest {action.replace('_', ' ')} of a man of 80 kg and 1.80 m, and where",
            unit="N·m, °",
            expected=expected,
            tolerance=1.5,
            source=ANDERSON,
            compute=lambda action=action: _peak(action),  # type: ignore[misc]
        )
        for action, expected in (
            ("knee_extension", (230.0, 65.0)),
            ("hip_extension", (227.0, 53.0)),
            ("knee_flexion", (123.0, 30.0)),
            ("plantarflexion", (134.0, 23.0)),
        )
    ),
)
