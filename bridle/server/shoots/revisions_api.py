"""What a shoot was before: its revisions as a list, one to look at, and the edits that bring it back."""

from datetime import datetime
from typing import Any

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router
from ninja.params.functions import Query

from bridle.core.lists.sides import side_by_side
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import difference
from bridle.core.plan.upgrade import plan_from
from bridle.server.errors import Trouble
from bridle.server.history import Content, RevisionList, history
from bridle.server.ids import MOST, PathId
from bridle.server.shoots.models import Shoot
from bridle.server.shoots.reading import read_kept
from bridle.server.shoots.schemas import Back, BringBack, PlanThen
from bridle.server.shoots.sent import evaluated, sent
from bridle.server.turns import turn

router = Router(tags=["shoots"])


@router.get("/shoots/{shoot_id}/revisions", response=RevisionList, operation_id="list_shoot_revisions")
def list_revisions(request: HttpRequest, shoot_id: PathId, before: int | None = Query(None, ge=1, le=MOST)) -> Any:
    """What a shoot was before, newest first, with when and what changed."""
    return history(get_object_or_404(Shoot, pk=shoot_id), _changes, before)


def _changes(old: Content, new: Content) -> list[str]:
    sides = side_by_side(plan_from(new["plan"]), plan_from(old["plan"]))
    return [f"{side.place}: {side.mine} instead of {side.theirs}" for side in sides]


def _then(shoot_id: int, version: int) -> tuple[datetime, Plan]:
    """The revision of that version, and its plan; what is kept now counts as one."""
    shoot = get_object_or_404(Shoot, pk=shoot_id)
    if version == shoot.version:
        return shoot.changed_at, read_kept(shoot)
    found = shoot.revisions().filter(version=version).first()
    if found is None:
        raise Http404
    content = found.content if isinstance(found.content, dict) else {}
    return found.made_at, read_kept(Shoot(plan=content.get("plan")))


@router.get("/shoots/{shoot_id}/revisions/{version}", response=PlanThen, operation_id="look_at_shoot_revision")
def look_at_revision(request: HttpRequest, shoot_id: PathId, version: PathId) -> Any:
    """A shoot as it was, to be looked at."""
    made_at, plan = _then(shoot_id, version)
    with turn(plan):
        then = PlanThen.model_construct(version=version, made_at=made_at, plan=plan, evaluation=sent(evaluated(plan)))
        return HttpResponse(then.model_dump_json(), content_type="application/json")


@router.post(
    "/shoots/{shoot_id}/revisions/{version}/back",
    response={200: Back, 422: Trouble},
    operation_id="bring_back_shoot_revision",
)
def bring_back(request: HttpRequest, shoot_id: PathId, version: PathId, asked: BringBack) -> Any:
    """The edits that make a plan into what it was; nothing is kept by this."""
    _, then = _then(shoot_id, version)
    return Back(edits=difference(asked.plan, then), sides=side_by_side(then, asked.plan))
