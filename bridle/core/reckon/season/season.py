"""A long run, all of its numbers together."""

from dataclasses import dataclass, replace

from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.season.draws import draws_of
from bridle.core.reckon.season.hours import Hours, is_long, season_hours
from bridle.core.reckon.season.power import Powered, powered
from bridle.core.reckon.season.storage import Stored, stored
from bridle.core.reckon.season.told import Menu, menus
from bridle.core.reckon.season.visits import CLOCK, ENTRIES, RESTART, Coming, coming


@dataclass(frozen=True)
class Staying:
    """What a camera that stays lives on, where its frames go, and when somebody comes."""

    hours: Hours
    power: Powered
    store: Stored
    coming: Coming
    menus: tuple[Menu, ...]


def staying(shooting: Shooting) -> Staying | None:
    """The numbers of a long run; None of any shorter one."""
    return shooting.ask(_staying)


def _staying(shooting: Shooting) -> Staying | None:
    plan = shooting.plan
    if not is_long(plan, shooting.timeline):
        return None
    hours = season_hours(plan, shooting.timeline)
    power = powered(plan, hours, draws_of(shooting, hours))
    store = stored(shooting, hours)
    visits = coming(shooting, hours, power, store)
    again = [*visits.at(RESTART), *visits.at(CLOCK)]
    runs = menus(plan, shooting.timeline, [visit.at for visit in visits.visits], again)
    return Staying(hours, power, store, _with_entries(visits, runs), runs)


def _with_entries(visits: Coming, runs: tuple[Menu, ...]) -> Coming:
    """The visits, at those at which another run begins with its entries put in."""
    begins = {run.from_s for run in runs[1:]}
    told = [
        visit._replace(tasks=(*visit.tasks, ENTRIES)) if visit.at in begins and RESTART not in visit.tasks else visit
        for visit in visits.visits
    ]
    return replace(visits, visits=tuple(told))
