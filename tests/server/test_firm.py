"""Firm ground: stale saves of any kind, lists whose lines stand alone, finding, revisions, one shape of refusals."""

import json
import threading
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime, timedelta
from typing import Any
from unittest import TestCase as PlainCase
from unittest import mock

from django.test import TestCase
from django.utils import timezone
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import VERSION, Plan
from bridle.core.plan.edit import Edit, apply
from bridle.server.keeping import BIN_DAYS, Revision, empty_bin, thin_all
from bridle.server.kit.models import KitCard, keep_card
from bridle.server.remembered import Remembered
from bridle.server.revisions import DAY, WEEK, step_at, superfluous
from bridle.server.runs.models import LogEntry, Run
from bridle.server.said import SAID
from bridle.server.shoots import lines
from bridle.server.shoots.models import Shoot, keep
from tests.formats.test_older import OLDER
from tests.mutated import CARDS, PLANS, mutated_plans
from tests.server.test_api import Page
from tests.server.test_keeping import HARBOUR

NOW = datetime(2026, 11, 25, 12, tzinfo=UTC)


class Sides(TestCase):
    def setUp(self) -> None:
        self.page = Page()

    def test_a_stale_save_is_always_told_with_both_sides(self) -> None:
        shoot = keep(HARBOUR)

        @settings(max_examples=25, deadline=None, suppress_health_check=list(HealthCheck))
        @given(mutated_plans(3), mutated_plans(3))
        def of_any_two(mine: Plan, theirs: Plan) -> None:
            Shoot.objects.filter(pk=shoot.pk).update(
                name=theirs.shoot.name, plan=theirs.model_dump(mode="json"), version=7
            )
            body = {"version": 6, "plan": mine.model_dump(mode="json")}
            answer = self.page.send("PUT", f"/api/shoots/{shoot.pk}", body)
            if mine.model_dump(mode="json") == theirs.model_dump(mode="json"):
                self.assertEqual((answer.status_code, answer.json()["version"]), (200, 7), "it is kept already")
                return
            told = answer.json()
            self.assertEqual(answer.status_code, 409)
            places = [side["place"] for side in told["sides"]]
            self.assertEqual(len(set(places)), len(places))
            edits = tuple(Edit.model_validate(edit) for edit in told["differences"])
            self.assertEqual(apply(theirs, edits)[0], mine)
            self.assertEqual(told["kept"]["plan"], theirs.model_dump(mode="json"))

        of_any_two()

    def test_a_save_goes_to_the_shoot_that_it_was_made_of_whatever_has_its_number(self) -> None:
        shoot = keep(HARBOUR)
        changed = apply(HARBOUR, [Edit(path="camera.iso", value=800)])[0].model_dump(mode="json")
        for identity, status in (("another's", 404), (shoot.identity, 200), ("", 200)):
            body = {"version": 1, "plan": changed, "identity": identity}
            self.assertEqual(self.page.send("PUT", f"/api/shoots/{shoot.pk}", body).status_code, status)
            self.assertEqual(Shoot.objects.get().version, 1 if status == 404 else 2)
        found = self.page.get(f"/api/shoots-by-identity/{shoot.identity}")
        self.assertEqual(found.json(), {"id": shoot.pk})
        self.assertEqual(self.page.get("/api/shoots-by-identity/nobody").status_code, 404)

    def test_a_plan_of_an_older_form_is_told_what_is_other_now_when_it_is_taken_in(self) -> None:
        old = OLDER["3"]["fern-frond-uncurling"]["plan"]
        told = self.page.send("POST", "/api/shoots/import", old).json()
        self.assertIn("Gaps: 14.4 s now", " ".join(told["changed"]))
        self.assertEqual(self.page.get(f"/api/shoots/{told['id']}").json()["changed"], [], "once")
        upgraded = self.page.send("POST", "/api/plans/upgrade", old).json()
        self.assertEqual((upgraded["plan"]["bridle_plan"], upgraded["changed"]), (VERSION, told["changed"]))
        kept = Shoot.objects.create(name="old", plan=old)
        self.assertEqual(
            self.page.get(f"/api/shoots/{kept.pk}").json()["changed"], told["changed"], "until it is saved"
        )

    def test_sides_that_differ_in_kind(self) -> None:
        plan = {name: json.loads(json.dumps(next(one for one in PLANS if one["shoot"]["name"] == name)))
                for name in ("Harbour refloat", "Market morning")}  # fmt: skip
        rail, wound = (plan[name]["kit"]["copies"] for name in plan)
        axis = next(i for i, copy in enumerate(rail) if copy["card"]["kind"] == "axis")
        drive = next(copy["card"]["drive"] for copy in wound if copy["card"]["kind"] == "axis")
        harbour = plan["Harbour refloat"]
        swapped = [*harbour["kit"]["copies"]]
        swapped[0], swapped[1] = swapped[1], swapped[0]
        pair = {"kind": "stereo", "base_mm": 60.0}
        stations = {"kind": "stations", "stations": [{"name": "a"}, {"name": "b", "slide_mm": 200.0}]}
        keys = harbour["move"]["keyframes"]
        for path, mine, theirs in (
            (f"kit.copies.{axis}.card.drive", drive, None),
            ("kit.copies", swapped, None),
            ("move.visits", stations, pair),
            ("move.keyframes.1", {**keys[1], "when": {"by": "clip", "at_s": "9"}},
             {**keys[1], "when": {"by": "frame", "frame": 300}}),
        ):  # fmt: skip
            with self.subTest(path):
                here, _ = apply(HARBOUR, [Edit(path=path, value=mine)])
                there = HARBOUR if theirs is None else apply(HARBOUR, [Edit(path=path, value=theirs)])[0]
                shoot = keep(there)
                Shoot.objects.filter(pk=shoot.pk).update(version=2)
                body = {"version": 1, "plan": here.model_dump(mode="json")}
                answer = self.page.send("PUT", f"/api/shoots/{shoot.pk}", body)
                self.assertEqual(answer.status_code, 409)
                self.assertTrue(answer.json()["sides"])


class Lines(TestCase):
    def setUp(self) -> None:
        self.page = Page()

    def listed(self, query: str = "") -> list[dict[str, Any]]:
        return list(self.page.get(f"/api/shoots{query}").json()["shoots"])

    def test_a_shoot_that_cannot_be_worked_out_takes_no_other_down(self) -> None:
        keep(HARBOUR)
        newer = {**HARBOUR.model_dump(mode="json"), "bridle_plan": 99}
        for name, plan in (("newer", newer), ("garbage", {"a": [1]}), ("text", "lost")):
            Shoot.objects.create(name=name, plan=plan)
        broken = {line["name"]: line["broken"] for line in self.listed() if line["broken"]}
        self.assertEqual(set(broken), {"newer", "garbage", "text"})
        self.assertIn("written by a newer Bridle", broken["newer"])
        for shoot in Shoot.objects.exclude(name=HARBOUR.shoot.name):
            with self.subTest(shoot.name):
                opened = self.page.get(f"/api/shoots/{shoot.pk}")
                self.assertEqual((opened.status_code, "cannot be worked out" in opened.json()["message"]), (422, True))
                self.assertEqual(self.page.get(f"/files/shoots/{shoot.pk}/plan.json").json(), shoot.plan)
                self.assertEqual(self.page.get(f"/files/shoots/{shoot.pk}/frames.csv").status_code, 409)
                self.assertEqual(self.page.send("POST", f"/api/shoots/{shoot.pk}/duplicate", {}).status_code, 422)

    def test_a_fault_of_the_rules_is_told_on_its_line_and_nothing_is_kept_by_an_import(self) -> None:
        keep(HARBOUR)
        with mock.patch.object(lines, "evaluate", side_effect=ZeroDivisionError), self.assertLogs("bridle.shoots"):
            self.assertIn("the fault is Bridle's", str(self.listed()[0]["broken"]))
        raw = json.dumps(HARBOUR.model_dump(mode="json")).encode()
        with (
            mock.patch("bridle.server.shoots.api.evaluate", side_effect=ZeroDivisionError),
            self.assertLogs("bridle.errors"),
        ):
            answer = self.page.send("POST", "/api/shoots/import", raw)
        self.assertEqual((answer.status_code, answer.json()["message"]), (500, SAID[500]))
        self.assertEqual(Shoot.objects.count(), 1)

    def test_lines_are_kept_and_worked_out_once_a_version(self) -> None:
        shoot = keep(HARBOUR)
        with mock.patch.object(lines, "evaluate", wraps=evaluate) as worked:
            first = self.listed()
            self.assertEqual(self.listed(), first)
            self.assertEqual(worked.call_count, 1)
            shoot.put(apply(HARBOUR, [Edit(path="camera.iso", value=800)])[0], 1)
            self.listed()
            self.assertEqual(worked.call_count, 2)
            with mock.patch.object(lines, "engine", return_value="another"), mock.patch.object(lines, "AT_ONCE_S", 0):
                self.assertTrue(self.listed()[0]["stale"], "another engine's line is shown, and said to be stale")
            self.assertEqual(worked.call_count, 2)

    def test_finding_looks_in_the_words_of_people_only(self) -> None:
        shoot = keep(HARBOUR)
        for name, place, subject in (
            ("Mühle am Bach", "Tal", "Wasserrad"),
            ("Ночной рынок", "ГОРОД", ""),
            ("夜市", "港町", ""),
            ("Straße", "Ὀδυσσεύς", "İki köprü"),
        ):
            edits = (
                Edit(path="shoot.name", value=name),
                Edit(path="shoot.place.name", value=place),
                Edit(path="shoot.subject", value=subject),
            )
            keep(apply(HARBOUR, edits)[0])
        run = Run.objects.create(shoot=shoot, plan=shoot.plan, frames=1, ended_at=NOW)
        nought = dict.fromkeys(("planned_s", "taken_s", "delayed_s", "clip_planned_s", "clip_taken_s"), 1.0)
        counts = dict.fromkeys(("planned_frames", "taken_frames", "late_frames", "restarts"), 1)
        LogEntry.objects.create(run=run, name="x", outcome="finished", note="Ballast fürs Stativ", **nought, **counts)
        for find, names in (
            ("mühle", ["Mühle am Bach"]),
            ("MUHLE bach", ["Mühle am Bach"]),
            ("НОЧНОЙ город", ["Ночной рынок"]),
            ("港", ["夜市"]),
            ("strasse", ["Straße"]),
            ("οδυσσευσ KÖPRÜ", ["Straße"]),
            ("ballast stativ", ["Harbour refloat"]),
            ("exposure_s", []), ("bridle_plan", []), ("Europe/London", []), ("name", []), ("null", []), ("%", []),
        ):  # fmt: skip
            with self.subTest(find):
                found = self.page.get("/api/shoots", {"find": find}).json()["shoots"]
                self.assertEqual([line["name"] for line in found], names)

    def test_a_card_that_cannot_be_read_takes_no_other_down(self) -> None:
        keep_card(KitCard(card=CARDS[0]).read())
        KitCard.objects.create(name="odd", kind="axis", card={"kind": "axis", "name": "odd", "teeth": {}})
        shelf = self.page.get("/api/kit").json()
        self.assertEqual((len(shelf["cards"]), [one["name"] for one in shelf["broken"]]), (1, ["odd"]))


class Revisions(TestCase):
    def setUp(self) -> None:
        self.page = Page()

    def put(self, shoot: Shoot, **values: object) -> Shoot:
        plan, _ = apply(shoot.read(), [Edit(path=path.replace("__", "."), value=v) for path, v in values.items()])
        return shoot.put(plan, shoot.version)

    def test_a_shoot_as_it_was_is_listed_looked_at_and_brought_back(self) -> None:
        shoot = keep(HARBOUR)
        shoot = self.put(self.put(shoot, camera__iso=400), beat__exposure_s="1", camera__iso=800)
        address = f"/api/shoots/{shoot.pk}/revisions"
        found = self.page.get(address).json()
        said = [(one["version"], one["now"], one["changed"]) for one in found["revisions"]]
        exposure = "beat, exposure: 1 s instead of 2.5 s"
        self.assertEqual(
            said,
            [
                (3, True, [exposure, "camera, iso: 800 instead of 400"]),
                (2, False, ["camera, iso: 400 instead of 100"]),
                (1, False, ["as it was begun"]),
            ],
        )
        then = self.page.get(f"{address}/1").json()
        self.assertEqual((then["plan"]["camera"]["iso"], then["evaluation"]["frames"]), (100, 720))
        back = self.page.send("POST", f"{address}/1/back", {"plan": shoot.plan}).json()
        restored, _ = apply(shoot.read(), [Edit.model_validate(one) for one in back["edits"]])
        self.assertEqual(restored, HARBOUR)
        self.assertEqual(self.page.get(f"{address}/99").status_code, 404)
        self.assertEqual(self.page.get(f"{address}?before=1").json(), {"revisions": [], "before": None})

    def test_a_long_list_goes_on_page_by_page(self) -> None:
        shoot = keep(HARBOUR)
        for iso in range(100, 170):
            shoot = self.put(shoot, camera__iso=iso)
        seen, before = [], None
        while True:
            query = "" if before is None else f"?before={before}"
            page = self.page.get(f"/api/shoots/{shoot.pk}/revisions{query}").json()
            seen += [one["version"] for one in page["revisions"]]
            self.assertTrue(all(one["changed"] for one in page["revisions"]))
            before = page["before"]
            if before is None:
                break
        self.assertEqual(seen, list(range(shoot.version, 0, -1)))

    def test_a_card_as_it_was(self) -> None:
        kept = keep_card(KitCard(card=CARDS[0]).read())
        kept.put(kept.read().model_copy(update={"name": "newer name"}), 1)
        found = self.page.get(f"/api/kit/{kept.pk}/revisions").json()["revisions"]
        self.assertEqual([one["version"] for one in found], [2, 1])
        then = self.page.get(f"/api/kit/{kept.pk}/revisions/1").json()
        self.assertEqual(then["card"]["name"], CARDS[0]["name"])
        self.assertIn("newer name", then["differences"][0])

    def test_two_thousand_saves_do_not_stay_for_good(self) -> None:
        shoot = keep(HARBOUR)
        rows = [
            Revision(kind=Shoot.kind_name(), kept_id=shoot.pk, version=n, made_at=NOW - timedelta(minutes=9 * n),
                     content={"name": "x", "plan": shoot.plan})
            for n in range(2000)
        ]  # fmt: skip
        Revision.objects.bulk_create(rows)
        with mock.patch("bridle.server.keeping.timezone.now", return_value=NOW):
            thin_all()
        left = Revision.objects.count()
        self.assertLessEqual(left, 160 + 145 + 8, "a day of every nine minutes, six days of hours, six of days")
        self.assertGreater(left, 300)
        with mock.patch("bridle.server.keeping.timezone.now", return_value=NOW + timedelta(days=400)):
            thin_all()
        self.assertLess(Revision.objects.count(), 5)

    def test_emptying_the_bin_takes_no_run_no_entry_and_no_revision_of_anything_else(self) -> None:
        gone, stays = keep(HARBOUR), keep(HARBOUR)
        gone, stays = self.put(gone, camera__iso=400), self.put(stays, camera__iso=400)
        Run.objects.create(shoot=gone, plan=gone.plan, frames=720, ended_at=timezone.now())
        long_ago = timezone.now() - timedelta(days=BIN_DAYS + 1)
        Shoot.objects.filter(pk=gone.pk).update(binned_at=long_ago)
        self.assertEqual(empty_bin(Shoot), 1)
        self.assertEqual([run.read_plan() for run in Run.objects.all()], [gone.read()])
        self.assertEqual([one.kept_id for one in Revision.objects.all()], [stays.pk])

    def test_a_shoot_whose_run_is_under_way_stays_out_of_the_bin(self) -> None:
        shoot = keep(HARBOUR)
        run = Run.objects.create(shoot=shoot, plan=shoot.plan, frames=720)
        answer = self.page.send("POST", f"/api/shoots/{shoot.pk}/bin", {})
        self.assertEqual((answer.status_code, "under way" in answer.json()["message"]), (409, True))
        self.assertIsNone(Shoot.objects.get(pk=shoot.pk).binned_at)
        Run.objects.filter(pk=run.pk).update(ended_at=timezone.now())
        self.assertEqual(self.page.send("POST", f"/api/shoots/{shoot.pk}/bin", {}).status_code, 200)
        refused = self.page.send("POST", f"/api/runs/{run.pk}/ask", {"what": "pause"})
        self.assertEqual((refused.status_code, "has ended" in refused.json()["message"]), (409, True))


class Sent(TestCase):
    def test_a_drag_is_told_what_the_whole_answer_says_and_a_working_comes_by_its_key(self) -> None:
        page = Page()
        for data in PLANS:
            with self.subTest(data["shoot"]["name"]):
                moved = {"do": "set", "path": "move.keyframes.1.slide_mm", "value": 123.0}
                ask = {"plan": Plan.model_validate(data).model_dump(mode="json"), "changes": [moved]}
                dragged, answer = page.send("POST", "/api/drag", ask), page.send("POST", "/api/evaluate", ask)
                self.assertLess(len(dragged.content), 40_000)
                brief, whole = dragged.json()["brief"], answer.json()["evaluation"]
                self.assertEqual(dragged.json()["plan"], answer.json()["plan"])
                self.assertEqual(brief["figures"], {key: whole["figures"][key] for key in brief["figures"]})
                seen = [(one["code"], one["path"]) for one in brief["snags"]]
                aside = brief["aside"]
                said = [
                    (one["code"], one["path"])
                    for one in whole["snags"]
                    if one["code"] not in aside and f"{one['chapter']}/" not in aside
                ]
                self.assertEqual(seen, said)
                # Where the light is dragged its drawing is the whole one, changes and schools and all.
                lit = page.send("POST", "/api/drag", {**ask, "lit": True}).json()["brief"]["light"]
                for part in ("missing", "bands", "fall", "changes", "capped", "proofs", "reach"):
                    self.assertEqual(lit[part], whole["light"][part])
                self.assertEqual([one["outside"] for one in lit["schools"]],
                                 [one["outside"] for one in whole["light"]["schools"]])  # fmt: skip
                for key in ("view.across", "clip.interval"):
                    working = page.send("POST", "/api/working", {"plan": answer.json()["plan"], "key": key}).json()
                    self.assertEqual(working["value"], whole["figures"][key]["value"])
                    self.assertTrue(working["terms"])


class Thinning(PlainCase):
    @settings(max_examples=60, deadline=None)
    @given(st.lists(st.integers(0, 400 * 24 * 3600), min_size=120, max_size=300, unique=True))
    def test_thinning_keeps_a_day_whole_and_older_ones_by_the_hour_day_and_week(self, ages: list[int]) -> None:
        made = [(number, NOW - timedelta(seconds=age)) for number, age in enumerate(ages)]
        gone = set(superfluous(made, NOW))
        left = [(number, at) for number, at in made if number not in gone]
        self.assertTrue(all(NOW - at > DAY for number, at in made if number in gone))
        self.assertEqual(superfluous(left, NOW), [], "thinning what is thin takes nothing")
        stays = {(step_at(NOW - at), at.timestamp() // step_at(NOW - at).total_seconds()): at for _, at in left
                 if NOW - at > DAY}  # fmt: skip
        for _, at in (one for one in made if one[0] in gone):
            step = step_at(NOW - at)
            self.assertGreater(stays[(step, at.timestamp() // step.total_seconds())], at, "the last of each time stays")
        if made:
            self.assertNotIn(max(made, key=lambda one: one[1])[0], gone)
        for oldest, step in ((WEEK, timedelta(hours=1)), (8 * WEEK, DAY), (timedelta(days=401), WEEK)):
            stamps = [at.timestamp() // step.total_seconds() for _, at in left if oldest / 8 < NOW - at <= oldest]
            if step == WEEK:
                stamps = [at.timestamp() // step.total_seconds() for _, at in left if NOW - at > 8 * WEEK]
                self.assertEqual(len(set(stamps)), len(stamps))


class Remembering(PlainCase):
    def test_it_is_worked_out_once_for_all_who_ask_and_held_within_its_bytes(self) -> None:
        held, made, begun = Remembered(1000), [], threading.Event()

        def slowly() -> bytes:
            made.append(1)
            begun.wait(5)
            return b"x" * 400

        with ThreadPoolExecutor(8) as pool:
            asked = [pool.submit(held.get, "one", slowly) for _ in range(8)]
            begun.set()
            self.assertEqual({len(one.result()) for one in asked}, {400})
        self.assertEqual(len(made), 1)
        for number in range(20):
            held.get(number, lambda: b"y" * 300)
            self.assertLessEqual(held.held_bytes, 1000)
        self.assertEqual(held.get(19, lambda: b"anew"), b"y" * 300)
        self.assertEqual(held.get("one", lambda: b"anew"), b"anew", "the longest unused is forgotten")
        with self.assertRaises(ZeroDivisionError):
            held.get("wrong", lambda: bytes(1 // 0))
        self.assertEqual(held.get("wrong", lambda: b"right"), b"right", "an error is not remembered")


class Refusals(TestCase):
    def test_every_refusal_has_one_shape(self) -> None:
        page, shoot = Page(), keep(HARBOUR)
        own, plan = f"/api/shoots/{shoot.pk}", HARBOUR.model_dump(mode="json")
        huge = 10**30
        nan = json.dumps({"plan": plan, "frame": 0}).replace('"frame": 0', '"frame": NaN').encode()
        for status, method, path, body in (
            (404, "GET", "/api/nowhere", None),
            (404, "GET", "/api/shoots/99", None),
            (422, "GET", f"/api/shoots/{huge}", None),
            (422, "GET", f"/api/runs/{huge}", None),
            (422, "POST", f"/api/kit/{huge}/bin", {}),
            (422, "GET", f"{own}/revisions?before={huge}", None),
            (422, "GET", f"{own}/revisions/{huge}", None),
            (422, "GET", "/api/runs/1?after=-1", None),
            (422, "GET", f"/api/shoots?find={'x' * 500}", None),
            (405, "DELETE", own, None),
            (400, "POST", "/api/evaluate", b"{"),
            (400, "POST", "/api/evaluate", b"\xff\xfe"),
            (400, "POST", "/api/frame", nan),
            (400, "POST", "/api/evaluate", b"[" * 100_000),
            (422, "POST", "/api/evaluate", []),
            (422, "POST", "/api/evaluate", {"plan": {**plan, "shoot": {**plan["shoot"], "name": "\u200b\u3164"}}}),
            (422, "POST", "/api/evaluate", {"plan": plan, "changes": [{"do": "set", "path": "clip", "value": "x"}]}),
            (422, "POST", "/api/evaluate", {"plan": plan, "changes": [{"do": "begin", "path": "shoot.name"}]}),
            (422, "POST", "/api/evaluate", {"plan": plan, "changes": [{"do": "begin", "path": "move.marks.77.aimed"}]}),
            (422, "POST", "/api/evaluate", {"plan": plan, "changes": [{"do": "drop", "path": "move.marks.77"}]}),
            (422, "POST", "/api/evaluate", {"plan": plan, "changes": [{"do": "drop", "path": ""}]}),
            (422, "POST", "/api/kit", {"like": "body", "name": "x" * 200}),
            (422, "POST", "/api/working", {"plan": plan, "key": "no.such.figure"}),
            (413, "POST", "/api/evaluate", b" " * 2_000_000),
            (413, "POST", "/api/shoots/import", b" " * 2_000_000),
            (422, "POST", "/api/shoots/import", b'{"bridle_plan": 3, "bridle_plan": 3}'),
        ):
            with self.subTest(path=path[:60], status=status):
                answer = page.get(path) if method == "GET" else page.send(method, path, body)
                self.assertEqual(answer.status_code, status, answer.content[:200])
                self.assertEqual(set(answer.json()), {"message", "problems"})
                self.assertTrue(answer.json()["message"].endswith((".", "?")), answer.json()["message"])
                self.assertNotIn("null", [problem["stood"] for problem in answer.json()["problems"]])
        for kind in ("text/plain", "application/xml", "multipart/form-data; boundary=x", "", "a" * 300):
            with self.subTest(kind=kind[:20]):
                raw = json.dumps({"plan": plan}).encode()
                answer = page.generic("POST", "/api/evaluate", raw, kind, headers={"X-CSRFToken": page.token})
                self.assertIn(answer.status_code, (200, 400, 403, 415, 422))
                self.assertEqual(page.get(f"/files/shoots/{huge}/plan.json").status_code, 404)
