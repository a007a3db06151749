"""Room, client, machine sheets and kit files: what is kept, refused and undone."""

from __future__ import annotations

import copy
import json
from importlib.resources import files

import pytest

from tests.conftest import NOW
from tests.looked import looked
from tests.spoken import refused
from widearc import store, usecases
from widearc.core.equipment import KINDS, Source, kind_of
from widearc.core.errors import InputError
from widearc.formats.kitfile import parse_kit_file
from widearc.store.errors import MissingError
from widearc.usecases import ItemFacts, SheetError
from widearc.usecases.bench.bands import band_checks, band_uses, check_band, pairs_of, spread_at
from widearc.usecases.bench.machines import (
    add_check,
    hung_test,
    machine_sheet,
    parse_readings,
    save_readings,
)
from widearc.usecases.room.kit import badge_of, rules_of, stock_of, uncertainty_of_client
from widearc.words import plain


def item_named(con, name, place=1):
    return next(i for i in store.items(con, 1, place) if i.name == name)


def facts(kind="box", name="Box 20", quantities=None, **more):
    return ItemFacts(
        kind=kind,
        name=name,
        quantities={"height_m": 0.2} if quantities is None else quantities,
        sources={},
        **more,
    )


def undo(con, scope="place:1"):
    usecases.take_back(con, 1, store.last_change(con, 1, scope).id, now=NOW)


@pytest.mark.parametrize("kind", KINDS.values(), ids=lambda k: k.id)
def test_every_kind_is_added_read_back_duplicated_removed_and_undone(demo, kind):
    before = store.items(demo, 1, 2)
    given = {q.name: q.low + 0.25 * (q.high - q.low) for q in kind.quantities if not q.whole}
    given |= {q.name: 2.0 for q in kind.quantities if q.whole}
    given |= {"smallest_kg": 5.0} if "smallest_kg" in given else {}
    made = usecases.add_item(demo, 1, 2, facts(kind.id, "Thing 1", given), now=NOW)
    item = store.item(demo, 1, made)
    assert dict(item.quantities) == pytest.approx(given)
    again = usecases.duplicate_item(demo, 1, made, now=NOW)
    copied = store.item(demo, 1, again)
    assert (copied.name, copied.quantities, copied.shape) == (
        "Thing 2",
        item.quantities,
        item.shape,
    )
    stock_of(demo, 1, 2)
    usecases.remove_item(demo, 1, made, now=NOW)
    with pytest.raises(MissingError):
        store.item(demo, 1, made)
    for _ in range(3):
        undo(demo, "place:2")
    assert store.items(demo, 1, 2) == before


def test_what_was_not_typed_is_assumed_and_said_so(demo):
    item = store.item(
        demo, 1, usecases.add_item(demo, 1, 1, facts("cable", "Tower", {"height_m": 0.1}), now=NOW)
    )
    assert item.quantities["ratio"] == 1.0 and item.sources["ratio"] is Source.ASSUMED
    assert badge_of(item, 0) == "assumed"
    band = store.item(
        demo, 1, usecases.add_item(demo, 1, 1, facts("band", "New loop", {}), now=NOW)
    )
    assert (badge_of(band, 0), badge_of(band, 5), band.strands) == ("not weighed", "measured", 2)
    assert badge_of(item_named(demo, "Bench"), 0) == "measured", "its own weight is in no curve"
    assert badge_of(item_named(demo, "Curl machine", 3), 5) == "measured", (
        "its cam was read at the pad"
    )


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"name": ""}, "name"),
        ({"name": "x" * 81}, "name"),
        ({"name": "box 30"}, "name"),
        ({"zone": "z" * 21}, "zone"),
        ({"side": "up"}, "side"),
        ({"hold": "glue"}, "hold"),
        ({"note": "n" * 501}, "note"),
        ({"quantities": {}}, "height_m"),
        ({"quantities": {"height_m": 9.0}}, "height_m"),
    ],
)
def test_a_wrong_fact_is_named_at_its_field_and_nothing_is_kept(demo, change, field):
    before = store.items(demo, 1, 1)
    with pytest.raises(SheetError) as refused:
        usecases.add_item(demo, 1, 1, facts(**change), now=NOW)
    assert list(refused.value.messages) == [field]
    with pytest.raises(SheetError):
        usecases.change_item(demo, 1, item_named(demo, "Box 52").id, facts(**change), now=NOW)
    assert store.items(demo, 1, 1) == before
    assert store.last_change(demo, 1, "place:1") is None


def test_a_place_is_copied_whole_and_removed_whole(demo):
    usecases.mark(demo, 1, item_named(demo, "Sled press").id, store.State.TAKEN, now=NOW)
    new = usecases.copy_place(demo, 1, 1, now=NOW)
    old, copied = store.items(demo, 1, 1), store.items(demo, 1, new)
    assert store.place(demo, 1, new).name == "Deck container 2"
    assert [(i.kind, i.name, i.quantities, i.sources) for i in old] == [
        (i.kind, i.name, i.quantities, i.sources) for i in copied
    ]
    assert all(i.state is store.State.FREE for i in copied)
    band = next(i for i in copied if i.name == "Light loop")
    assert store.readings(demo, 1, band.id) == store.readings(
        demo, 1, item_named(demo, "Light loop").id
    )
    press = next(i for i in copied if i.kind == "sled press")
    assert store.settings(demo, 1, press.id) == store.settings(
        demo, 1, item_named(demo, "Sled press").id
    )
    usecases.remove_place(demo, 1, new, now=NOW)
    assert [p.id for p in store.places(demo, 1)] == [1, 2, 3]
    undo(demo, "places")
    assert len(store.items(demo, 1, new)) == len(copied)


def test_a_zone_is_taken_and_freed_at_once_but_what_is_broken_stays(demo):
    usecases.mark(demo, 1, item_named(demo, "Bar 20").id, store.State.BROKEN, now=NOW)
    usecases.mark_zone(demo, 1, 1, "B", store.State.TAKEN, now=NOW)
    states = {i.state for i in store.items(demo, 1, 1) if i.zone == "B" and i.name != "Bar 20"}
    assert states == {store.State.TAKEN}
    assert item_named(demo, "Bar 20").state is store.State.BROKEN
    assert all(i.state is store.State.FREE for i in store.items(demo, 1, 1) if i.zone != "B")
    undo(demo)
    assert all(i.state is not store.State.TAKEN for i in store.items(demo, 1, 1))


def test_a_tick_on_the_look_round_is_kept_and_undone(demo):
    item = usecases.see(demo, 1, 5, seen=True, now=NOW)
    assert store.item(demo, 1, item.id).seen_at == NOW
    undo(demo)
    assert store.item(demo, 1, item.id).seen_at is None


def test_settings_are_kept_for_everyone_and_for_one(demo):
    press = item_named(demo, "Sled press")
    rows = [
        store.Setting(name="backrest", words="hole 3"),
        store.Setting(name="foot place", words="mark 2", client_id=2),
    ]
    usecases.keep_settings(demo, 1, press.id, rows, now=NOW)
    assert store.settings(demo, 1, press.id) == tuple(rows)
    for bad in (
        store.Setting(name="", words="x"),
        store.Setting(name="x", words="x", client_id=99),
        store.Setting(name="n" * 41, words="x"),
    ):
        with pytest.raises(SheetError):
            usecases.keep_settings(demo, 1, press.id, [rows[0], bad], now=NOW)
    assert store.settings(demo, 1, press.id) == tuple(rows)


def test_people_and_crowding_reach_the_rules(demo):
    place = store.place(demo, 1, 1)
    changed = store.PlaceFacts(
        name=place.name, people="partner", crowding="packed", wall=False, floor_length_m=6.0
    )
    usecases.change_place(demo, 1, 1, changed, now=NOW)
    client = store.client(demo, 1, 1)
    rules = rules_of(store.place(demo, 1, 1), client)
    assert (rules.partner, rules.alone, rules.packed, rules.wall, rules.floor_length_m) == (
        True,
        False,
        True,
        False,
        6.0,
    )
    assert not rules_of(store.place(demo, 1, 1), client, show_all=True).packed
    alone = store.PlaceFacts(name=place.name, people="others")
    usecases.change_place(demo, 1, 1, alone, now=NOW)
    assert not rules_of(store.place(demo, 1, 1), client).alone
    assert rules_of(store.place(demo, 1, 1), store.ClientFacts(name="x", trains_alone=True)).alone
    for bad in (
        {"name": ""},
        {"name": "Cabin 14"},
        {"name": "x", "people": "crowd"},
        {"name": "x", "floor_width_m": 0.1},
        {"name": "x", "crowding": "full"},
        {"name": "x", "note": "n" * 301},
    ):
        with pytest.raises(SheetError):
            usecases.change_place(demo, 1, 1, store.PlaceFacts(**bad), now=NOW)


def test_what_is_trained_here_follows_a_tap(demo):
    def count(action):
        view = usecases.room_view(demo, 1, 1)
        one = next(t for t in view.actions if t.action.name == action)
        return len(one.now), len(one.held_up)

    before = count("KE")
    usecases.mark(demo, 1, item_named(demo, "Sled press").id, store.State.TAKEN, now=NOW)
    after = count("KE")
    assert after[0] < before[0] and after[1] == before[0] - after[0]


# clients


def test_a_client_needs_a_name_only(demo):
    made = usecases.new_client(demo, 1, store.ClientFacts(name="Deckhand"), now=NOW)
    row = store.client(demo, 1, made)
    assert (row.body.mass_kg, row.limits.knee_deg, row.assumed) == (
        80.0,
        140.0,
        ("80 kg", "180 cm"),
    )
    assert uncertainty_of_client(row).mass > uncertainty_of_client(store.client(demo, 1, 1)).mass
    undo(demo, "clients")
    assert len(store.clients(demo, 1)) == 3


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"name": " "[:0]}, "name"),
        ({"name": "cook"}, "name"),
        ({"mass_kg": 5.0}, "mass_kg"),
        ({"stature_m": 3.0}, "stature_m"),
        ({"dorsiflexion_deg": 80.0}, "dorsiflexion_deg"),
        ({"grip_kg": 0.2}, "grip_kg"),
        ({"goal": "fame"}, "goal"),
        ({"experience": "expert"}, "experience"),
        ({"stronger_side": "up"}, "stronger_side"),
        ({"sore": {"elbow": "left"}}, "sore"),
        ({"note": "n" * 501}, "note"),
        ({"thigh_m": 0.2}, "thigh_m"),
    ],
)
def test_a_wrong_fact_of_a_client_is_named_at_its_field(demo, change, field):
    before = store.clients(demo, 1)
    with pytest.raises(SheetError) as refused:
        usecases.change_client(
            demo, 1, 1, store.ClientFacts(**({"name": "Bosun"} | change)), now=NOW
        )
    assert field in refused.value.messages
    assert store.clients(demo, 1) == before


def test_a_taped_thigh_reaches_the_curve(demo):
    row = store.client(demo, 1, 3)
    assert row.body.thigh_m == 0.475
    assert uncertainty_of_client(row).thigh < uncertainty_of_client(store.client(demo, 1, 2)).thigh


def test_removing_a_client_takes_its_decisions_and_undo_brings_them_back(demo):
    ask = usecases.SwapAsk(place_id=1, client_id=1)
    from widearc.core.search import Memo

    memo = Memo()
    best = usecases.swap_view(demo, 1, ask, memo).ranking.candidates[0]
    usecases.decide(demo, 1, ask, best.exercise.id, memo, now=NOW)
    kept = store.decisions(demo, 1)
    usecases.remove_client(demo, 1, 1, now=NOW)
    assert store.decisions(demo, 1) == () and len(store.clients(demo, 1)) == 2
    undo(demo, "clients")
    assert store.decisions(demo, 1) == kept


# machine sheets


def rows_of(*rows):
    names = ("at", "force", "arm", "direction", "setting")
    return [dict.fromkeys(names, "") | row for row in rows]


def test_a_spring_read_at_three_marks_is_kept_as_measured(demo):
    spring = usecases.add_item(
        demo,
        1,
        1,
        facts("spring", "Spring 1", {"start_n": 10.0, "end_n": 15.0, "travel_m": 0.5}),
        now=NOW,
    )
    read = parse_readings(
        "spring",
        rows_of(
            {"at": "0", "force": "33"}, {"at": "20", "force": "73"}, {"at": "60", "force": "153"}
        ),
        "N",
    )
    save_readings(demo, 1, spring, read, {}, now=NOW)
    item = store.item(demo, 1, spring)
    assert item.quantities["start_n"] == pytest.approx(33)
    assert item.quantities["end_n"] == pytest.approx(153)
    assert item.quantities["travel_m"] == pytest.approx(0.6)
    assert {s for n, s in item.sources.items() if n != "count"} == {Source.MEASURED}
    assert machine_sheet(demo, 1, spring).fits[""].rms_n == pytest.approx(0, abs=1e-9)
    undo(demo)
    assert store.item(demo, 1, spring).quantities["start_n"] == 10.0
    assert machine_sheet(demo, 1, spring).readings == ()


def test_the_hung_carriage_agrees_or_warns(demo):
    """The third of the trade's springs, 15 lb hung: rests at a quarter of its travel (common
    practice, no source).
    """
    lbf, lb = 4.4482216152605, 0.45359237
    spring = usecases.add_item(
        demo,
        1,
        1,
        facts(
            "spring",
            "Third",
            {"start_n": 7.5 * lbf, "end_n": 37.5 * lbf, "travel_m": 0.8},
        ),
        now=NOW,
    )
    item = store.item(demo, 1, spring)
    assert hung_test(item, 15 * lb, None).predicted_m == pytest.approx(0.25 * 0.8)
    assert "agree" in plain(hung_test(item, 15 * lb, 0.22).words)
    assert "not as read" in plain(hung_test(item, 15 * lb, 0.40).words)
    assert "at the stop" in plain(hung_test(item, 60 * lb, None).words)
    assert "at the first mark" in plain(hung_test(item, 3 * lb, None).words)
    for carriage, rests in ((0.0, None), (7.0, 2.0)):
        with pytest.raises(InputError):
            hung_test(item, carriage, rests)


def test_a_sled_by_push_and_return_gives_its_weight_and_friction(demo):
    press = item_named(demo, "Sled press")
    read = parse_readings(
        "sled",
        rows_of({"force": "252", "direction": "push"}, {"force": "228", "direction": "return"}),
        "N",
    )
    save_readings(demo, 1, press.id, read, {"rail_deg": 40.0}, now=NOW)
    item = store.item(demo, 1, press.id)
    # 240 N along rails of 40° and 12 N of friction either way
    assert item.quantities["empty_kg"] == pytest.approx(240 / (9.80665 * 0.6427876), rel=1e-6)
    assert item.quantities["friction"] == pytest.approx(
        12 / (item.quantities["empty_kg"] * 9.80665 * 0.7660444), rel=1e-6
    )
    check = parse_readings(
        "sled", rows_of({"force": "251", "direction": "push"}), "N", purpose="check"
    )
    add_check(demo, 1, press.id, check, now=NOW)
    sheet = machine_sheet(demo, 1, press.id)
    assert (sheet.checks[0].predicted_n, sheet.checks[0].says) == (pytest.approx(252), "trust")


def test_a_cam_s_radius_follows_from_the_weight_on_the_pin(demo):
    """A round pulley of 12 cm under 40 kg pulls 47.07 N·m at every angle: 130.8 N at a pad of 36
    cm.
    """
    item = usecases.add_item(demo, 1, 1, facts("lying curl", "Round", {}), now=NOW)
    rows = rows_of(*({"at": str(a), "force": "130.76", "arm": "36"} for a in (0, 50, 100)))
    save_readings(demo, 1, item, parse_readings("stack", rows, "N"), {"read_kg": 40.0}, now=NOW)
    assert machine_sheet(demo, 1, item).fits[""].tables["radius_m"] == pytest.approx(
        (0.12,) * 3, abs=1e-4
    )


def test_a_cam_has_a_table_for_each_dial_and_checks_against_its_own(demo):
    curl = item_named(demo, "Curl machine", 3)
    read = [*store.machine_readings(demo, 1, curl.id)]
    more = parse_readings(
        "stack",
        rows_of(
            {"at": "10", "force": "90", "arm": "36", "setting": "2"},
            {"at": "90", "force": "130", "arm": "36", "setting": "2"},
        ),
        "N",
    )
    save_readings(demo, 1, curl.id, [*read, *more], {}, now=NOW)
    sheet = machine_sheet(demo, 1, curl.id)
    assert list(sheet.fits) == ["1", "2"]
    check = rows_of({"at": "50", "force": "110", "arm": "36", "setting": "2"})
    add_check(demo, 1, curl.id, parse_readings("stack", check, "N", purpose="check"), now=NOW)
    add_check(
        demo,
        1,
        curl.id,
        parse_readings(
            "stack",
            rows_of({"at": "120", "force": "110", "arm": "36", "setting": "2"}),
            "N",
            purpose="check",
        ),
        now=NOW,
    )
    first, second = machine_sheet(demo, 1, curl.id).checks
    assert (first.predicted_n, first.says) == (pytest.approx(110), "trust")
    assert "no prediction" in second.says


@pytest.mark.parametrize(
    ("kind", "given", "rows", "sets"),
    [
        ("cable", {"height_m": 0.1}, [("10", "49.03"), ("30", "147.1")], {"ratio": 0.5}),
        ("pendulum", {"arm_m": 0.8}, [("30", "39.23"), ("90", "78.45")], {"arm_kg": 8.0}),
        (
            "belt squat lever",
            {"user_arm_m": 0.8},
            [("0", "98.07"), ("60", "49.03")],
            {"arm_kg": 10.0, "angle_deg": 0.0},
        ),
        ("corner pivot", {"hand_m": 2.0}, [("0", "100"), ("20", "288.3")], {"sleeve_m": 1.92}),
    ],
)
def test_each_machine_s_readings_settle_its_numbers(demo, kind, given, rows, sets):
    item = usecases.add_item(demo, 1, 1, facts(kind, "New one", given), now=NOW)
    fit = KINDS[kind].fit
    typed = rows_of(*({"at": a, "force": f, "arm": "80"} for a, f in rows))
    save_readings(demo, 1, item, parse_readings(fit, typed, "N"), {}, now=NOW)
    found = store.item(demo, 1, item)
    for name, value in looked(sets.items(), 1):
        assert found.quantities[name] == pytest.approx(value, abs=0.01), name
        assert found.sources[name] is Source.MEASURED


@pytest.mark.parametrize(
    ("fit", "row", "field"),
    [
        ("spring", {"at": "x", "force": "5"}, "row-0-at"),
        ("spring", {"at": "5"}, "row-0-force"),
        ("spring", {"at": "5", "force": "-1"}, "row-0-force"),
        ("stack", {"at": "5", "force": "5"}, "row-0-arm"),
        ("stack", {"at": "5", "force": "5", "arm": "900"}, "row-0-arm"),
        ("sled", {"force": "5", "direction": "up"}, "row-0-direction"),
        ("cable", {"at": "1e9", "force": "5"}, "row-0-at"),
    ],
)
def test_a_wrong_cell_of_a_machine_is_named(fit, row, field):
    with pytest.raises(SheetError) as refused:
        parse_readings(fit, rows_of(row), "N")
    assert field in refused.value.messages


def test_readings_that_make_no_law_keep_nothing(demo):
    press = item_named(demo, "Sled press")
    before = store.item(demo, 1, press.id)
    only_push = parse_readings("sled", rows_of({"force": "252", "direction": "push"}), "N")
    with refused(SheetError, "push and one return"):
        save_readings(demo, 1, press.id, only_push, {}, now=NOW)
    with refused(SheetError, "from 0° to 90°"):
        save_readings(demo, 1, press.id, (), {"rail_deg": 120.0}, now=NOW)
    heavy = parse_readings(
        "sled",
        rows_of({"force": "9000", "direction": "push"}, {"force": "8000", "direction": "return"}),
        "N",
    )
    with refused(SheetError, "read again"):
        save_readings(demo, 1, press.id, heavy, {}, now=NOW)
    assert store.item(demo, 1, press.id) == before
    with pytest.raises(MissingError, match="sheet of its own"):
        machine_sheet(demo, 1, item_named(demo, "Light loop").id)


def test_a_band_s_uses_pairs_checks_and_band(demo):
    loop = item_named(demo, "Medium loop")
    sheet = usecases.band_sheet(demo, 1, loop.id)
    uses = band_uses(sheet)
    assert [round(u.length_m / 0.99, 2) for u in uses] == [1.25, 1.5, 1.75, 2.0]
    assert all(
        u.folded_n == pytest.approx(2 * u.as_read_n) and u.folded_m == u.length_m / 2 for u in uses
    )
    twin = usecases.duplicate_item(demo, 1, loop.id, now=NOW)
    name, match = pairs_of(demo, 1, usecases.band_sheet(demo, 1, loop.id))[0]
    assert (
        name == store.item(demo, 1, twin).name
        and match.alike
        and match.off == pytest.approx(0, abs=1e-9)
    )
    check_band(demo, 1, loop.id, "155", "170", "cm", "N", now=NOW)
    check_band(demo, 1, loop.id, "155", "120", "cm", "N", now=NOW)
    assert [c.says for c in band_checks(demo, 1, sheet)] == ["trust", "weigh anew"]
    low, high = spread_at(sheet, __import__("numpy").array([1.3, 1.8]))
    assert (low < [118, 209]).all() and (high > [118, 209]).all()
    for length, force, field in (
        ("300", "5", "check-length"),
        ("x", "5", "check-length"),
        ("120", "", "check-force"),
    ):
        with pytest.raises(SheetError) as refused:
            check_band(demo, 1, loop.id, length, force, "cm", "N", now=NOW)
        assert field in refused.value.messages


# kit files


def test_a_kit_goes_out_and_comes_back_as_it_was(demo):
    document = json.loads(json.dumps(usecases.export_kit(demo, 1, 3)))
    same = usecases.plan_import(demo, 1, 3, document)
    assert (len(same.new), len(same.changed), len(same.same)) == (
        0,
        0,
        len(store.items(demo, 1, 3)),
    )
    new = usecases.new_place(demo, 1, store.PlaceFacts(name="Copy"), now=NOW)
    usecases.import_kit(demo, 1, new, document, now=NOW)
    back = usecases.export_kit(demo, 1, new)
    assert back["items"] == document["items"]
    undo(demo, f"place:{new}")
    assert store.items(demo, 1, new) == ()


def test_an_import_is_previewed_recognises_what_is_here_and_keeps_clients_settings(demo):
    document = usecases.export_kit(demo, 1, 1)
    loop = next(i for i in document["items"] if i["name"] == "Light loop")
    loop["readings"][-1]["force_n"] = 150.0
    document["items"].append(
        {"kind": "box", "name": "Box 12", "quantities": {"height_m": {"value": 0.12}}}
    )
    press = item_named(demo, "Sled press")
    mine = store.Setting(name="backrest", words="hole 9", client_id=2)
    usecases.keep_settings(demo, 1, press.id, [*store.settings(demo, 1, press.id), mine], now=NOW)
    before = store.items(demo, 1, 1)
    plan = usecases.plan_import(demo, 1, 1, document)
    assert [i.name for i in plan.new] == ["Box 12"]
    assert [(i.name, differs) for i, _, differs in plan.changed] == [("Light loop", ("readings",))]
    assert store.items(demo, 1, 1) == before, "a preview changes nothing"
    usecases.import_kit(demo, 1, 1, document, now=NOW)
    assert store.readings(demo, 1, item_named(demo, "Light loop").id)[-1].force_n == 150
    assert mine in store.settings(demo, 1, press.id)
    undo(demo)
    assert store.items(demo, 1, 1) == before


@pytest.mark.parametrize(
    ("spoil", "where"),
    [
        (lambda d: d.pop("place"), "/place"),
        (lambda d: d["items"][0].update(kind="trampoline"), "/items/0/kind"),
        (
            lambda d: d["items"][0]["quantities"].update(wheels={"value": 4}),
            "/items/0/quantities/wheels",
        ),
        (
            lambda d: d["items"][0]["quantities"]["rail_deg"].update(value=400),
            "/items/0/quantities/rail_deg/value",
        ),
        (lambda d: d["items"][0]["quantities"].pop("rail_deg"), "/items/0/quantities/rail_deg"),
        (lambda d: d["items"][0].update(band={"shape": "loop", "strands": 2}), "/items/0/band"),
        (
            lambda d: d["items"][14]["readings"][1].update(length_m=0.5),
            "/items/14/readings/1/length_m",
        ),
        (lambda d: d["items"][14]["readings"][2].update(force_n=1), "/items/14/readings/2/force_n"),
        (
            lambda d: d["items"][14]["band"].update(looked_over_on="2026-02-31"),
            "/items/14/band/looked_over_on",
        ),
        (lambda d: d["items"][3].update(name="PLATE 20"), "/items/3/name"),
        (lambda d: d["items"][1].update(kind="plate"), "/items/1/"),
        (lambda d: d["items"][0].update(extra=1), "/items/0/extra"),
    ],
)
def test_a_spoiled_kit_file_imports_nothing_and_names_the_place(demo, spoil, where):
    document = copy.deepcopy(usecases.export_kit(demo, 1, 1))
    spoil(document)
    before = store.items(demo, 1, 1)
    with pytest.raises(InputError) as refused:
        usecases.import_kit(demo, 1, 1, document, now=NOW)
    assert refused.value.where.startswith(where)
    assert store.items(demo, 1, 1) == before and store.last_change(demo, 1, "place:1") is None


def test_a_spring_asks_for_two_readings_and_no_stiffness(demo):
    """An older database and an older file tell the stiffness: both become the pull at the stop."""
    kind = kind_of("spring")
    assert [q.name for q in kind.quantities] == ["start_n", "end_n", "travel_m", "count"]
    with pytest.raises(usecases.SheetError) as refused:
        usecases.add_item(
            demo,
            1,
            1,
            facts("spring", "Odd", {"start_n": 40.0, "end_n": 15.0, "travel_m": 0.5}),
            now=NOW,
        )
    assert "end_n" in refused.value.messages
    part = {
        "kind": "spring",
        "name": "Old",
        "quantities": {
            "start_n": {"value": 10.0},
            "rate_n_per_m": {"value": 100.0, "source": "measured"},
            "travel_m": {"value": 0.5},
        },
    }
    document = {"format": "wide-arc/kit", "version": 1, "place": {"name": "x"}, "items": [part]}
    (item,) = parse_kit_file(document).items
    assert item.quantities["end_n"] == 60.0 and "rate_n_per_m" not in item.quantities
    spring = next(i for i in store.items(demo, 1, 3) if i.kind == "spring")
    with store.transaction(demo):
        demo.execute(
            "UPDATE quantity SET name = 'rate_n_per_m', value = 100.0 "
            "WHERE equipment_id = ? AND name = 'end_n'",
            (spring.id,),
        )
    sql = files("widearc.store").joinpath("migrations", "0019_spring_ends.sql").read_text()
    demo.executescript(sql)
    found = store.item(demo, 1, spring.id)
    travel = found.quantities["travel_m"]
    assert found.quantities["end_n"] == pytest.approx(found.quantities["start_n"] + 100.0 * travel)
    assert "rate_n_per_m" not in found.quantities
    assert found.sources["end_n"] is spring.sources["end_n"]
