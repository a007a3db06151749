"""The weighed bands and springs of a trainer's places, as a form of loads names them."""

from __future__ import annotations

from widearc import usecases
from widearc.formats.laws import law_part
from widearc.web.forms.loads import BenchBand


def bench_bands(kept: usecases.Holdings) -> dict[str, BenchBand]:
    """Return the measured bands and the springs of every place by id."""
    laws: dict[str, BenchBand] = {}
    for place in kept.places:
        stock = kept.at(place.id)
        backs = {item.key: item.back_share for item in stock.items}
        for band in stock.kit.bands:
            laws[band.id] = BenchBand(
                law=law_part(band.law),
                name=f"{band.name}, {place.name}",
                back=backs[band.id],
                error=band.error,
            )
        for spring in stock.kit.springs:
            own = spring.spring
            laws[spring.id] = BenchBand(
                kind="spring",
                law={"start_n": own.start_n, "end_n": own.end_n, "travel_m": own.travel_m},
                name=f"{spring.name}, {place.name}",
                error=spring.error,
            )
    return laws
