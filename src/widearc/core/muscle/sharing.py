"""How the muscles share a demand: the least sum of squared shares of their strength.

At each sample: minimise Σ (F/Fmax)² with Σ r·F = -demand at every joint that is not held, F ≥ 0
(the family of criteria of Crowninshield & Brand, J. Biomech. 14 (1981) 793-801). Solved through the
dual: F = Fmax² · max(0, r·λ), λ one number a joint, by a semi-smooth Newton with a line search, all
samples and set-ups together.
"""

from __future__ import annotations

import numpy as np

from widearc.core.arrays import Array
from widearc.core.muscle.paths import FMAX_N

STEPS, LINE_STEPS = 40, 12
TOLERANCE = 1e-10  # of the demand
CHUNK = 20_000  # samples: keeps the arrays under some 60 MB
UNIT = float(np.mean(FMAX_N) ** 2)  # keeps λ near one


def share_n(arm_m: Array, demand_nm: Array, strength: Array | None = None) -> Array:
    """Return the muscles' forces, N (muscles, samples).

    arm_m: (muscles, joints, samples), positive flexes. demand_nm: (joints, samples), extension
    positive; only joints that muscles answer for: leave the held ones out of both, or, at some
    samples only, give them no arm and no demand there. strength: the share of each greatest force
    that is there, (muscles, samples); all of it if None. A demand that no muscle can answer is met
    as nearly as can be. Scaling every Fmax alike changes nothing.
    """
    samples = demand_nm.shape[1]
    forces = np.empty((arm_m.shape[0], samples))
    there = np.ones(forces.shape) if strength is None else strength
    for start in range(0, samples, CHUNK):
        part = slice(start, start + CHUNK)
        arms = np.moveaxis(arm_m[:, :, part], 2, 0)
        forces[:, part] = _solved(arms, demand_nm[:, part].T, there[:, part].T).T
    return forces


def _solved(arm: Array, demand: Array, strength: Array) -> Array:
    """Return forces (samples, muscles) for arms (samples, muscles, joints), demands (samples,
    joints) and shares of strength (samples, muscles).
    """
    every = (FMAX_N * strength) ** 2 / UNIT
    joints = arm.shape[2]
    lam = np.zeros_like(demand)
    scale = np.maximum(np.abs(demand).max(axis=1), 1e-6)
    open_ = np.arange(len(demand))
    ridge = 1e-12 * np.eye(joints)
    for _ in range(STEPS):
        a, d, at, weight = arm[open_], demand[open_] / UNIT, lam[open_], every[open_]
        pull = np.maximum(_each(a, at), 0.0)
        gradient = ((weight * pull)[:, None, :] @ a)[:, 0] + d
        left = np.abs(gradient).max(axis=1) * UNIT > TOLERANCE * scale[open_]
        if not left.any():
            break
        open_, a, d, at, pull, gradient, weight = (
            open_[left],
            a[left],
            d[left],
            at[left],
            pull[left],
            gradient[left],
            weight[left],
        )
        active = weight * (pull > 0)
        # where nothing pulls yet, every muscle counts: the first step must have a slope
        active = np.where(active.any(axis=1, keepdims=True), active, weight)
        hessian = (a * active[:, :, None]).transpose(0, 2, 1) @ a
        hessian = (
            hessian
            + ridge * np.trace(hessian, axis1=1, axis2=2)[:, None, None]
            + 1e-15 * np.eye(joints)
        )
        step = -np.linalg.solve(hessian, gradient[..., None])[..., 0]
        lam[open_] = at + _length(a, d, at, step, gradient, weight)[:, None] * step
    pull = np.maximum(_each(arm, lam), 0.0)
    return np.asarray(every * pull * UNIT)


def _each(arm: Array, lam: Array) -> Array:
    """Return r·λ of every muscle, (samples, muscles)."""
    return np.asarray((arm @ lam[:, :, None])[..., 0])


def _length(a: Array, d: Array, at: Array, step: Array, gradient: Array, weight: Array) -> Array:
    """Return how far to go along each step, (samples,): halved until the dual falls enough
    (Armijo).
    """

    def dual(lam: Array) -> Array:
        """Return the dual's value, (samples,)."""
        pull = np.maximum(_each(a, lam), 0.0)
        return np.asarray(0.5 * (weight * pull**2).sum(axis=1) + (lam * d).sum(axis=1))

    here = dual(at)
    slope = (gradient * step).sum(axis=1)
    length = np.ones(len(at))
    for _ in range(LINE_STEPS):
        short = dual(at + length[:, None] * step) > here + 1e-4 * length * slope + 1e-18
        if not short.any():
            break
        length[short] *= 0.5
    return length
