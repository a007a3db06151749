"""The faults: a place in core, what stands there, what is put instead."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Fault:
    """One deliberate fault: file under core, text that is there once, its replacement, in words."""

    file: str
    old: str
    new: str
    what: str


M, L = "movement/families/", "equipment/loads/"

FAULTS = (
    # presses
    Fault(
        M + "press.py",
        "rail_force * rails.up_rail - push * rails.square",
        "rail_force * rails.up_rail + push * rails.square",
        "sign of the press's push",
    ),
    Fault(M + "press.py", "PUSH_SHARE = 0.3", "PUSH_SHARE = 0.03", "limit of the press's push"),
    Fault(
        M + "press.py",
        "rail_force = down - rub if lowering else down + rub",
        "rail_force = down + rub if lowering else down - rub",
        "sign of the sled's friction",
    ),
    Fault(
        M + "press.py",
        "down = down + load.total_kg * G * np.sin(self.rail)",
        "down = down + load.total_kg * G * np.cos(self.rail)",
        "sine of the rails",
    ),
    Fault(
        M + "press.py",
        "press = press + load.total_kg * G * np.cos(self.rail)",
        "press = press + load.total_kg * G * np.sin(self.rail)",
        "what presses on the rails",
    ),
    Fault(
        M + "press.py",
        "rub = rails.friction * np.abs(press - push)",
        "rub = rails.friction * np.abs(press + push)",
        "friction of the push across the rails",
    ),
    Fault(
        M + "press.py",
        "rail - thigh_angle - tilt",
        "rail - thigh_angle + tilt",
        "tilt of the plate",
    ),
    Fault(M + "press.py", 'thigh_angle + o["backrest"]', 'thigh_angle - o["backrest"]', "backrest"),
    Fault(
        "exercises/families/sled_press.py",
        "default=0.5,",
        "default=1.0,",
        "share of the press's push",
    ),
    Fault(
        "movement/effort.py", "np.asarray(-top / ", "np.asarray(top / ", "sign of the least effort"
    ),
    Fault(
        "movement/effort.py",
        "usual_strength_nm(motion, body, name) ** 2",
        "usual_strength_nm(motion, body, name)",
        "square of the effort",
    ),
    # two feet
    Fault("movement/pair.py", "PAIR_SHARE = 0.4", "PAIR_SHARE = 0.8", "bound of the pair"),
    Fault(
        "movement/pair.py",
        'share = np.atleast_2d(o["pair_share"])',
        'share = 0.0 * np.atleast_2d(o["pair_share"])',
        "the pair",
    ),
    Fault(
        M + "split.py", "REAR_PITCH = 60 * DEG", "REAR_PITCH = 40 * DEG", "pitch of the rear foot"
    ),
    Fault(
        M + "split.py",
        "(-motion.moment_about(ball) - span_y * total[0]) / span_x",
        "(motion.moment_about(ball) - span_y * total[0]) / span_x",
        "ground force of a split squat",
    ),
    Fault(
        M + "split.py",
        "rear_y, tilt = -total[1] - front_y, motion.full(span_y / span_x)",
        "rear_y, tilt = -total[1] - front_y, motion.full(-span_y / span_x)",
        "pair between feet at two heights",
    ),
    Fault(
        M + "split.py",
        'hip_x = -np.atleast_2d(o["step"]) * np',
        'hip_x = np.atleast_2d(o["step"]) * np',
        "hip behind the front foot",
    ),
    Fault(
        M + "steps.py",
        "((level - moment) / (-down",
        "((level + moment) / (-down",
        "share of the rear foot",
    ),
    Fault(
        M + "steps.py",
        "np.clip(1.0 - pose.position / np.maximum",
        "np.clip(1.0 - 2.0 * pose.position / np.maximum",
        "how the rear share falls",
    ),
    Fault(
        M + "steps.py", "STRAIGHTEST = 10 * DEG", "STRAIGHTEST = 30 * DEG", "straightest rear knee"
    ),
    Fault(M + "steps.py", "HIGHEST_HEEL = 75 * DEG", "HIGHEST_HEEL = 61 * DEG", "highest heel"),
    Fault(M + "steps.py", "SWINGS = 0.3", "SWINGS = 0.6", "swing of the free leg"),
    Fault(
        "exercises/families/split.py",
        'share of the lift", 0.3, 0.1, 0.6)',
        'share of the lift", 0.1, 0.1, 0.6)',
        "when the rear foot leaves",
    ),
    Fault(
        M + "step_up.py",
        "HEEL_STARTS = 45 * DEG",
        "HEEL_STARTS = 5 * DEG",
        "raised heel of a step-up",
    ),
    Fault(
        M + "b_stance.py",
        'np.atleast_2d(lift.o["rear_share"])',
        '0.0 * np.atleast_2d(lift.o["rear_share"])',
        "share of a b-stance",
    ),
    # stance
    Fault(
        M + "stance.py", "FIRST_LEAN = 5 * DEG", "FIRST_LEAN = 2 * DEG", "first lean of the shank"
    ),
    Fault(
        M + "stance.py",
        'shank_lean = np.minimum(FIRST_LEAN + o["knee_travel"]',
        'shank_lean = np.maximum(FIRST_LEAN + o["knee_travel"]',
        "cap of the shank's lean",
    ),
    Fault(
        M + "stance.py",
        "knee_bend, limits.dorsiflexion + wedge)",
        "knee_bend, limits.dorsiflexion - wedge)",
        "wedge under the heel",
    ),
    Fault(
        "statics/demand.py",
        "turned = from_heights / motion.plane_cos + level",
        "turned = from_heights * motion.plane_cos + level",
        "turned leg planes",
    ),
    Fault(
        "statics/demand.py",
        "return np.asarray(joint.sign * turned / motion.legs)\n\n\ndef demand_from",
        "return np.asarray(joint.sign * turned)\n\n\ndef demand_from",
        "working legs",
    ),
    # supports
    Fault(
        M + "supported.py",
        "push = -motion.moment_about(sole) / cross(contact - sole, square)",
        "push = motion.moment_about(sole) / cross(contact - sole, square)",
        "support force",
    ),
    Fault(
        M + "supported.py",
        "at = height - 0.5 * (last - trunk.hip[1])",
        "at = height - 1.0 * (last - trunk.hip[1])",
        "ball's climb",
    ),
    Fault(
        M + "supported.py",
        "return np.atleast_2d(first + (last - first) * position)",
        "return np.atleast_2d(first + 0.0 * (last - first) * position)",
        "trunk coming upright",
    ),
    Fault(
        M + "sled_squat.py",
        "push = -motion.moment_about(sole) / cross(contact - sole, square)",
        "push = motion.moment_about(sole) / cross(contact - sole, square)",
        "sled and arc squat's pad force",
    ),
    Fault(
        M + "sled_squat.py",
        'motion.add_force("trunk", shoulder, -force * up_rail',
        'motion.add_force("trunk", shoulder, force * up_rail',
        "sled squat's load",
    ),
    Fault(
        "exercises/families/sled_squat.py",
        'hip to shoulder", 0.3, 0, 1)',
        'hip to shoulder", 0.6, 0, 1)',
        "place of the back pad",
    ),
    Fault(
        M + "arc_squat.py",
        "kg * G * np.cos(turn) * upward",
        "kg * G * np.sin(turn) * upward",
        "counterweight of an arc squat",
    ),
    Fault(
        M + "arc_squat.py",
        "np.arctan2(gap[1], gap[0]) + np.arctan2(body.trunk_m, arm)",
        "np.arctan2(gap[1], gap[0]) - np.arctan2(body.trunk_m, arm)",
        "arm of an arc squat",
    ),
    # hinges, bridges, planks
    Fault(
        M + "hinge.py",
        "ahead_m = self.sole[0] - shoulder[0]",
        "ahead_m = shoulder[0] - self.sole[0]",
        "bar over the foot",
    ),
    Fault(
        M + "deadlift.py",
        '- np.atleast_2d(self.o["deficit"])',
        '+ np.atleast_2d(self.o["deficit"])',
        "raised feet of a deadlift",
    ),
    Fault(M + "bridge.py", "BENCH_AT = 0.8", "BENCH_AT = 0.6", "bench edge at the back"),
    Fault(
        M + "bridge.py",
        "foot_y = (-moment + span_y * front_x) / span_x",
        "foot_y = (-moment - span_y * front_x) / span_x",
        "bridge's pair and foot force",
    ),
    Fault(
        M + "bridge.py",
        "foot_y = (-moment + span_y",
        "foot_y = (-0.5 * moment + span_y",
        "bridge's foot force",
    ),
    Fault(
        M + "plank.py",
        "hand_y = (-moment + (hand[1]",
        "hand_y = (moment + (hand[1]",
        "hands of a couch press",
    ),
    Fault(
        M + "kneeling.py",
        "strap = -moment / span",
        "strap = moment / span",
        "strap of a nordic curl",
    ),
    Fault(
        M + "kneeling.py",
        "ahead_of_knee = (-moment + drop",
        "ahead_of_knee = (moment + drop",
        "floor under the shanks",
    ),
    Fault(
        M + "back_extension.py",
        "hold = -moment / (arm[0]",
        "hold = moment / (arm[0]",
        "hold of the ankles",
    ),
    Fault(
        M + "seated_calf.py",
        "rx = (-shank_side * b[0] + leg_side * a[0])",
        "rx = (shank_side * b[0] + leg_side * a[0])",
        "ball force of a seated calf raise",
    ),
    Fault(
        M + "calf_press.py",
        'motion.add_force("toes", ball, -force * up_rail',
        'motion.add_force("toes", ball, force * up_rail',
        "press of a calf raise",
    ),
    Fault(
        M + "swing.py",
        "thigh, shank = -lean(held - angle)",
        "thigh, shank = -lean(held + angle)",
        "way a leg swings",
    ),
    Fault(M + "thigh_spread.py", '"both": 0.5', '"both": 1.0', "readings for both thighs"),
    Fault(
        M + "knee_rotation.py",
        "(-0.05 if bends else 0.05)",
        "(0.05 if bends else -0.05)",
        "side of the shin pad",
    ),
    # carriages
    Fault(
        M + "carriage_ride.py",
        "with_lift = -1.0 if not self.helps else 1.0",
        "with_lift = 1.0 if not self.helps else -1.0",
        "sign of the carriage's springs",
    ),
    Fault(
        M + "carriage_ride.py",
        "return gone[..., -1:] - gone if self.helps else gone",
        "return gone",
        "travel of springs that help",
    ),
    Fault(
        M + "carriage.py",
        "carried = self.share * (down - up)",
        "carried = 0.0 * self.share * (down - up)",
        "share of the weight on the carriage",
    ),
    # loads
    Fault(
        L + "mass.py",
        "return np.asarray(self.kg) * G",
        "return np.asarray(self.kg) * 9.0",
        "weight of a mass",
    ),
    Fault(
        L + "spring.py",
        "return (self.end_n - self.start_n) / self.travel_m",
        "return self.end_n / self.travel_m",
        "rate of a spring",
    ),
    Fault(
        L + "stack.py",
        "sign = -1.0 if lowering else 1.0",
        "sign = 1.0 if lowering else -1.0",
        "stack's friction",
    ),
    Fault(
        L + "stack.py",
        "G * self.ratio * self.radius(angle)",
        "G * self.radius(angle)",
        "stack's ratio",
    ),
    Fault(
        L + "cable.py",
        "np.asarray(self.kg) * G * self.ratio * (1.0",
        "np.asarray(self.kg) * G * (1.0",
        "cable's ratio",
    ),
    Fault(
        L + "cable.py",
        "sign = -1.0 if lowering else 1.0",
        "sign = 1.0 if lowering else -1.0",
        "cable's friction",
    ),
    Fault(
        L + "lever.py",
        "main = np.asarray(self.kg) * self.arm_m * np.cos(turn",
        "main = np.asarray(self.kg) * self.arm_m * np.sin(turn",
        "lever's weight",
    ),
    Fault(
        L + "lever.py",
        "own = self.own_kg * self.own_arm_m * np.cos(turn",
        "own = self.own_kg * self.own_arm_m * np.sin(turn",
        "lever's own weight",
    ),
    Fault(
        L + "lever.py",
        "-self.moment_nm(self.turned(angle)) / far * with_lift",
        "-self.moment_nm(self.turned(angle)) * far * with_lift",
        "lever's reach to its user",
    ),
    Fault(
        L + "chain.py",
        "np.clip(height, 0.0, self.length_m))",
        "np.clip(self.length_m - height, 0.0, self.length_m))",
        "chain off the floor",
    ),
    Fault(
        L + "corner_bar.py",
        "self.bar_kg * self.bar_m / 2.0 + np.asarray",
        "self.bar_kg * self.bar_m / 3.0 + np.asarray",
        "corner bar's own weight",
    ),
    Fault(
        L + "corner_bar.py",
        "across = np.abs(gap[0]) / far",
        "across = np.abs(gap[1]) / far",
        "slope of a corner bar",
    ),
    Fault(
        L + "pendulum.py",
        "2.0 * np.pi * np.sqrt(self.arm_m / G)",
        "np.pi * np.sqrt(self.arm_m / G)",
        "swing of a pendulum",
    ),
    Fault(
        L + "sled.py",
        "sign = -1.0 if lowering else 1.0",
        "sign = 1.0 if lowering else -1.0",
        "friction of a hack squat's sled",
    ),
    Fault(
        L + "band.py",
        "number = self.strands * self.count",
        "number = 2 * self.count",
        "strands of a band",
    ),
    Fault(
        L + "band.py",
        "(1.0 - self.hysteresis if lowering else 1.0)",
        "(1.0 if lowering else 1.0 - self.hysteresis)",
        "what rubber gives back",
    ),
    Fault(
        L + "band.py",
        "np.sqrt(gap[0] ** 2 + gap[1] ** 2 + np.square(z))",
        "np.sqrt(gap[0] ** 2 + gap[1] ** 2)",
        "sideways length of a band",
    ),
    Fault(L + "rubber.py", "(stretch - stretch**-2)", "(stretch - stretch**-1)", "rubber's law"),
    Fault(
        "equipment/items/hold.py",
        "yield GRIP * weight, level + GRIP * up",
        "yield GRIP * weight, level - GRIP * up",
        "when an anchor slides",
    ),
    # people
    Fault(
        "strength/curves.py",
        "HOLD_BEYOND = 100 * DEG",
        "HOLD_BEYOND = 80 * DEG",
        "strength held beyond a bend",
    ),
    Fault(
        "strength/curves.py",
        "np.cos(np.clip(c2 * (held - c3)",
        "np.cos(np.clip(c2 * (held + c3)",
        "angle of a strength curve",
    ),
    Fault(
        "strength/curves.py",
        "KNEE_FLOOR, KNEE_FLOOR_BELOW = 0.45",
        "KNEE_FLOOR, KNEE_FLOOR_BELOW = 0.15",
        "strength of a straight knee",
    ),
    Fault(
        "strength/scale.py",
        "1.0 / (1.0 + reps / 30.0)",
        "1.0 / (1.0 + reps / 20.0)",
        "Epley's constant",
    ),
    Fault(
        "strength/scale.py", "(37.0 - reps) / 36.0", "(38.0 - reps) / 36.0", "Brzycki's constant"
    ),
    Fault(
        "strength/equal.py",
        "return 30.0 * (1.0 / effort - 1.0)",
        "return 20.0 * (1.0 / effort - 1.0)",
        "reps at equal effort",
    ),
    Fault("statics/whole_effort.py", "legs * share**2", "share**2", "both legs of a whole effort"),
    Fault(
        "statics/whole_effort.py",
        "np.where(demand >= 0, given[0], given[1])",
        "given[0]",
        "action of a whole effort",
    ),
    Fault(
        "statics/spine.py",
        "np.abs(moment) / MUSCLE_ARM_M + np.maximum(-along, 0.0)",
        "np.abs(moment) / MUSCLE_ARM_M",
        "compression along the spine",
    ),
    Fault(
        "statics/frontal.py",
        "total = total - out * item.force[1]",
        "total = total + out * item.force[1]",
        "sign of a hip's abduction",
    ),
    Fault(
        "statics/dynamic.py",
        "-part.mass_kg * sped(part.com)",
        "part.mass_kg * sped(part.com)",
        "sign of inertia",
    ),
    Fault(
        "statics/energy_audit.py", "change = _change(motion)", "change = work", "the audit itself"
    ),
    # muscles
    Fault(
        "muscle/sharing.py",
        "(FMAX_N * strength) ** 2 / UNIT",
        "(FMAX_N * strength) / UNIT",
        "criterion of sharing",
    ),
    Fault("muscle/fibres.py", "WIDTH = 0.45", "WIDTH = 4.5", "force of a short fibre"),
    Fault(
        "muscle/trained.py", "STRAIGHT = 5 * DEG", "STRAIGHT = 25 * DEG", "knee that holds itself"
    ),
    Fault(
        "statics/muscular.py",
        'demand["ankle"] = demand_nm(curve.motion, "ankle")[row]',
        "pass",
        "free ankle",
    ),
    Fault(
        "muscle/trained.py",
        "np.diff(found.length_m, axis=1)",
        "np.abs(np.diff(found.length_m, axis=1))",
        "work of a muscle that is stretched",
    ),
    # what is compared
    Fault(
        "matching/measure.py",
        "EXTRA_WEIGHT, OTHER_WEIGHT = 0.5, 0.25",
        "EXTRA_WEIGHT, OTHER_WEIGHT = 0.0, 0.25",
        "what is over in a match",
    ),
    Fault(
        "matching/measure.py",
        "EXTRA_WEIGHT, OTHER_WEIGHT = 0.5, 0.25",
        "EXTRA_WEIGHT, OTHER_WEIGHT = 0.5, 0.0",
        "what is asked beside in a match",
    ),
    Fault(
        "matching/measure.py",
        "SPACINGS_DEG = (20.0, 60.0)",
        "SPACINGS_DEG = (20.0, 30.0)",
        "grains of a match",
    ),
    Fault("matching/match.py", "level=total_c / total_t", "level=total_t / total_c", "level"),
    Fault(
        "dose/dose.py",
        "lowering_s: float = 2.0",
        "lowering_s: float = 1.0",
        "usual tempo of lowering",
    ),
    Fault(
        "dose/dose.py",
        "bins[_quarter(angle, style.end)] *= 2.0",
        "bins[_quarter(angle, style.end)] *= 1.0",
        "one and a quarter",
    ),
    Fault(
        "search/uncertainty.py",
        "LOSS_MEAN, LOSS_VARIANCE = 0.8, 0.36",
        "LOSS_MEAN, LOSS_VARIANCE = 0.4, 0.36",
        "what is lost on the mean",
    ),
    Fault(
        "search/uncertainty.py",
        "variance += (o_a - o_b) ** 2",
        "variance += (o_a + o_b) ** 2",
        "errors that stand-ins share",
    ),
    Fault(
        "progression/arithmetic.py",
        "/ (2.0 * front_share) - on_joints",
        "/ (2.0 * front_share) + on_joints",
        "start on one leg",
    ),
)

EQUIVALENT: tuple[tuple[str, str], ...] = ()
