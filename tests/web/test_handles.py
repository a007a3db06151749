"""Handles in a real browser: a drag and the arrow keys change the curve, the address and the
history.
"""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

pytestmark = pytest.mark.browser
DESK, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}
HANDS = "a0=knee_extension&f0=95&t0=10&s0=&h0-0=120&h0-1=150&h0-2=130&h0-3=90&h0-4=40"


def pull(page, handle, dx, dy):
    """Drag a handle by px on the screen, in steps as a hand does."""
    handle.scroll_into_view_if_needed()
    box = handle.locator("circle").first.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    for step in (0.3, 0.7, 1.0):
        page.mouse.move(x + dx * step, y + dy * step)
        page.wait_for_timeout(60)
    page.mouse.up()


@pytest.mark.parametrize("size", [DESK, PHONE], ids=["desk", "phone"])
def test_a_drag_on_the_target_ribbon_changes_it_and_can_be_taken_back(watched, served, size):
    page = watched
    page.set_viewport_size(size)
    page.goto(f"{served}/intent/?{HANDS}")
    line = page.locator("#drawing-fan-0 .wa-line-intended")
    before = line.get_attribute("d")
    pull(page, page.locator("#handle-h0-0"), 0, 30)
    expect(page.locator("#trail")).to_contain_text("95°, lengthened end: 120 to ")
    value = int(page.locator("#h0-0").input_value())
    assert value > 130
    assert f"h0-0={value}" in page.url
    assert line.get_attribute("d") != before
    page.locator("#trail button").click()
    expect(page.locator("#h0-0")).to_have_value("120")
    assert "h0-0=120" in page.url and line.get_attribute("d") == before


def test_the_arrow_keys_move_a_handle_and_escape_puts_it_back(watched, served):
    page = watched
    page.goto(f"{served}/intent/?{HANDS}")
    handle = page.locator("#handle-h0-2")
    handle.focus()
    page.keyboard.press("ArrowUp")
    expect(page.locator("#h0-2")).to_have_value("135")
    expect(handle).to_be_focused()
    expect(handle).to_have_attribute("aria-valuenow", "135")
    page.keyboard.press("Shift+ArrowDown")
    expect(page.locator("#h0-2")).to_have_value("85")
    page.keyboard.press("Escape")
    expect(page.locator("#h0-2")).to_have_value("130")


def test_a_shape_becomes_handles_when_one_is_pulled(watched, served):
    page = watched
    page.goto(f"{served}/intent/?a0=knee_extension&f0=95&t0=10&s0=even&m0=100")
    page.locator("#handle-h0-4").focus()
    page.keyboard.press("ArrowRight")
    expect(page.locator("#s0")).to_have_value("")
    expect(page.locator("#h0-4")).to_have_value("105")
    expect(page.locator("#h0-0")).to_have_value("100")


def test_the_foot_is_dragged_along_the_plate(watched, served):
    page = watched
    page.set_viewport_size(DESK)
    page.goto(f"{served}/arc/?exercise=leg-press-45&for=leg-press-45&client=1&l0=sled&l0-kg=100")
    edge = page.locator("#drawing-knee .wa-line-edge").first
    before = edge.get_attribute("d")
    pull(page, page.locator("#handle-o-foot_height_m"), -14, -14)
    expect(page.locator("#trail")).to_contain_text("foot on the plate: 10 to ")
    moved = float(page.locator("#o-foot_height_m").input_value())
    assert moved > 12 and f"o-foot_height_m={moved:g}" in page.url
    assert edge.get_attribute("d") != before
    page.keyboard.press("u")
    expect(page.locator("#o-foot_height_m")).to_have_value("10")
    expect(edge).to_have_attribute("d", before)


def test_a_drag_stops_at_the_limit_of_the_option(watched, served):
    page = watched
    page.set_viewport_size(DESK)
    page.goto(f"{served}/arc/?exercise=bodyweight-squat&for=bodyweight-squat&client=1")
    pull(page, page.locator("#handle-o-heel_wedge_m"), 0, -200)
    expect(page.locator("#o-heel_wedge_m")).to_have_value("6")


def test_the_bar_is_moved_to_another_place_of_the_body(watched, served):
    page = watched
    page.set_viewport_size(DESK)
    page.goto(
        f"{served}/arc/?exercise=goblet-squat&for=goblet-squat&l0=mass&l0-kg=24&l0-port=goblet&client=1"
    )
    handle = page.locator("#handle-l0-port")
    handle.focus()
    page.keyboard.press("ArrowUp")
    expect(page.locator("#l0-port")).to_have_value("hip-belt")
    expect(page).to_have_url(re.compile("l0-port=hip-belt"))


def test_an_anchor_goes_both_ways(watched, served):
    page = watched
    page.set_viewport_size(DESK)
    page.goto(
        f"{served}/arc/?exercise=leg-extension-band&for=leg-extension-band&client=1&l0=band&l0-x=-60&l0-y=20"
    )
    pull(page, page.locator("#handle-l0-x-l0-y"), -20, -25)
    expect(page.locator("#trail")).to_contain_text("anchor: -60, 20 to ")
    assert float(page.locator("#l0-x").input_value()) <= -66
    assert float(page.locator("#l0-y").input_value()) > 23


def test_a_field_typed_is_a_step_of_the_history_too(watched, served):
    page = watched
    page.goto(f"{served}/arc/?exercise=bodyweight-squat&for=bodyweight-squat&client=1")
    page.locator("#o-knee_from_deg").fill("90")
    page.locator("#o-knee_from_deg").press("Tab")
    expect(page.locator("#trail")).to_contain_text("changed.")
    assert "o-knee_from_deg=90" in page.url
    page.go_back()
    expect(page.locator("#o-knee_from_deg")).to_have_value("110")


def test_the_scrub_rule_moves_figure_curves_and_numbers(watched, served):
    page = watched
    page.set_viewport_size(DESK)
    page.goto(
        f"{served}/arc/?exercise=goblet-squat&for=goblet-squat&l0=mass&l0-kg=24&l0-port=goblet&client=1"
    )
    rule = page.get_by_role("slider", name="place in the lift")
    rule.focus()
    page.keyboard.press("Home")
    assert page.locator("[data-at]").inner_text() == "At 110°"
    shank = (
        page.locator('[data-line="shank"]').first.get_attribute("x2"),
        page.locator('[data-line="thigh"]').first.get_attribute("x1"),
    )
    page.keyboard.press("Shift+ArrowRight")
    assert re.match(r"At (99|100|101)°", page.locator("[data-at]").inner_text())
    page.keyboard.press("End")
    now = (
        page.locator('[data-line="shank"]').first.get_attribute("x2"),
        page.locator('[data-line="thigh"]').first.get_attribute("x1"),
    )
    assert now != shank and page.locator("[data-at]").inner_text() == "At 5°"
