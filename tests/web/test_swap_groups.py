"""Swap's list: groups of those alike, at least five seen, the rest folded, the lift's own mark."""

from __future__ import annotations

import re

from widearc.core.search import Uncertainty
from widearc.web.screens.swap.sections import SEEN_AT_LEAST, sections_of


class One:
    """A stand-in as the list needs it."""

    def __init__(self, name, usual):
        self.exercise = type("E", (), {"id": name})()
        self.uncertainty = Uncertainty(nominal=usual, effects={}, demand_nm={})


def listed(groups, pinned=(), shown=None, again=None):
    groups = [[One(name, usual) for name, usual in group] for group in groups]
    drawn = {c.exercise.id: (c, "", None) for g in groups for c in g}
    mark = None if again is None else Uncertainty(nominal=again, effects={}, demand_nm={})
    found = sections_of(groups, drawn, pinned, shown or set(drawn), mark)
    names = [[row[0].exercise.id for row in part.rows] for part in found]
    return found, names


GROUPS = [[("a", 0.9)], [("b", 0.8), ("c", 0.78), ("d", 0.77), ("e", 0.76)], [("f", 0.5)]]


def test_groups_are_seen_until_five_the_rest_is_folded():
    found, names = listed(GROUPS)
    assert names == [["a"], ["b", "c", "d", "e"], ["f"]]
    assert [part.folded for part in found] == [False, False, True]
    assert [part.words for part in found] == [
        "First",
        "Then, 4 alike as far as can be known",
        "Then",
    ]
    few, _ = listed(GROUPS, shown={"a", "b", "f"})
    assert not any(part.folded for part in few)
    assert SEEN_AT_LEAST == 5


def test_an_own_choice_comes_first_and_once():
    found, names = listed(GROUPS, pinned={"f"})
    assert names == [["f"], ["a"], ["b", "c", "d", "e"]]
    assert found[0].words == "Your own choice"
    assert not found[2].folded


def test_the_lift_set_up_again_stands_before_the_first_group_it_is_above():
    for again, at in ((0.95, 0), (0.85, 1), (0.6, 2)):
        found, _ = listed(GROUPS, again=again)
        assert [part.marked for part in found].index(True) == at
        assert sum(part.marked for part in found) == 1
    assert not any(part.marked for part in listed(GROUPS)[0])


def test_the_page_shows_groups_by_match_and_one_list_by_another_column(client):
    page = client.get("/swap").text
    assert "alike as far as can be known" in page
    assert re.search(r'id="again"><b>\d+</b>', page)
    seen, folded = page.split('id="others"')
    assert seen.count('id="row-') >= SEEN_AT_LEAST
    count = int(re.search(r"<summary>(\d+) others", folded).group(1))
    assert folded.count('id="row-') == count
    by_step = client.get("/swap?sort=step").text
    assert 'id="others"' not in by_step and "alike as far" not in by_step
    assert by_step.count('id="row-') == page.count('id="row-')
    # one that is folded opens the fold when it is chosen
    hidden = re.search(r'id="row-([a-z0-9-]+)"', folded).group(1)
    chosen = client.get(f"/swap?pick={hidden}").text
    assert '<details class="wa-others" id="others" open>' in chosen
