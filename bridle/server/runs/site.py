"""The simulated site of a run as it is now: stepped from its start through everything that has happened to it."""

from bridle.core.run.events import TASK_END
from bridle.core.run.programme import LEAD_S, Programme
from bridle.server.runs.models import Run
from bridle.standins.site import Site, site_of

# A cut that a person asks for lasts so long.
CUT_S = 6 * 3600.0


def site_of_run(run: Run, programme: Programme) -> Site | None:
    """The site of a run; None where the shoot is over before anything runs out."""
    if programme.stay is None:
        return None
    site = site_of(run.read_plan(), programme.stay, run.weather, run.pk)
    told = run.events.filter(kind__in=("visit", "cut", "missed")).order_by("number")
    for at_s, kind, seconds, said in told.values_list("at_s", "kind", "seconds", "said"):
        if kind == "visit":
            site.visit(at_s - LEAD_S, tuple(said.split(TASK_END)) if said else ())
        elif kind == "cut":
            site.cut(at_s - LEAD_S, seconds or CUT_S)
        else:
            site.to(at_s - LEAD_S)
            site.missed()
    site.to(run.now_s - LEAD_S)
    return site
