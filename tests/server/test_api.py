"""The API as the page uses it."""

import json
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from django.test import Client, TestCase

from bridle.core.plan.document import Plan
from bridle.formats.plan_json import read_plan
from bridle.server.api import api
from bridle.server.keeping import Revision
from bridle.server.keys import secret_key
from bridle.server.kit.drives import drives_text
from bridle.server.shoots.files import formats_text
from bridle.server.shoots.models import Shoot, keep

ROOT = Path(__file__).parents[2]
DEMO = ROOT / "bridle/demo/shoots"
NEW = {
    "name": "Dawn",
    "subject": "fog",
    "place": "Port Ellary",
    "zone": "Europe/London",
    "start": "2026-12-01T07:00:00Z",
}


class Page(Client):
    """A client with the page's token, as the page has it."""

    def __init__(self) -> None:
        super().__init__(enforce_csrf_checks=True)
        self.get("/api/shoots")
        self.token = self.cookies["csrftoken"].value

    def send(self, method: str, path: str, body: Any) -> Any:
        data = body if isinstance(body, bytes) else json.dumps(body)
        return self.generic(method, path, data, "application/json", headers={"X-CSRFToken": self.token})


class Api(TestCase):
    def setUp(self) -> None:
        self.page = Page()
        self.plan: Plan = read_plan((DEMO / "harbour-refloat.json").read_bytes())
        self.shoot = keep(self.plan)
        self.address = f"/api/shoots/{self.shoot.pk}"

    def dumped(self, **sections: object) -> dict[str, Any]:
        return {**self.plan.model_dump(mode="json"), **sections}

    def listed(self, query: str) -> list[str]:
        return [shoot["name"] for shoot in self.page.get(f"/api/shoots{query}").json()["shoots"]]

    def renamed(self, name: str) -> dict[str, Any]:
        plan = self.dumped()
        plan["shoot"]["name"] = name
        return plan

    def test_a_change_without_the_pages_token_is_refused(self) -> None:
        bare = Client(enforce_csrf_checks=True)
        for method, path in (("POST", "/api/shoots"), ("PUT", self.address), ("POST", "/api/evaluate")):
            self.assertEqual(bare.generic(method, path, "{}", "application/json").status_code, 403, path)
        self.assertEqual(Shoot.objects.count(), 1)

    def test_headers_on_every_answer(self) -> None:
        for path in ("/api/shoots", "/", "/schema/plan-3.json"):
            headers = self.page.get(path).headers
            self.assertIn("script-src 'self';", headers["Content-Security-Policy"])
            self.assertEqual((headers["X-Frame-Options"], headers["X-Content-Type-Options"]), ("DENY", "nosniff"))

    def test_a_new_shoot_has_sound_defaults(self) -> None:
        answer = self.page.send("POST", "/api/shoots", NEW)
        told = answer.json()["evaluation"]
        self.assertEqual((answer.status_code, told["clip"]["state"]), (201, "solved"))
        self.assertEqual([snag["code"] for snag in told["snags"]], ["nothing-moves"])

    def test_bad_answers_to_the_questions(self) -> None:
        for wrong in (
            {"name": " "},
            {"start": "soon"},
            {"zone": "Mars"},
            {"name": "x" * 500},
            {"start": "0001-01-01T00:00Z"},
        ):
            with self.subTest(wrong):
                answer = self.page.send("POST", "/api/shoots", {**NEW, **wrong})
                self.assertEqual(answer.status_code, 422)
                self.assertEqual(answer.json()["problems"][0]["path"].split(".")[-1], next(iter(wrong)))
        self.assertEqual(Shoot.objects.count(), 1)

    def test_two_windows_and_neither_is_overwritten(self) -> None:
        first = self.page.send("PUT", self.address, {"version": 1, "plan": self.renamed("Mine")})
        self.assertEqual((first.status_code, first.json()["version"]), (200, 2))
        second = self.page.send("PUT", self.address, {"version": 1, "plan": self.renamed("Yours")})
        self.assertEqual(second.status_code, 409)
        self.assertEqual(second.json()["kept"]["plan"]["shoot"]["name"], "Mine")
        self.assertEqual(
            second.json()["sides"], [{"path": "shoot.name", "place": "shoot, name", "mine": "Yours", "theirs": "Mine"}]
        )
        self.assertEqual(second.json()["differences"], [{"path": "shoot.name", "value": "Yours"}])
        self.assertEqual(Shoot.objects.get(pk=self.shoot.pk).name, "Mine")
        self.assertEqual([r.content["name"] for r in Revision.objects.all()], ["Harbour refloat"])

    def test_nothing_invalid_is_saved(self) -> None:
        for wrong in (
            self.dumped(extra=1),
            self.dumped(bridle_plan=99),
            self.dumped(camera={"iso": "x"}),
            "text",
            None,
        ):
            with self.subTest(wrong=str(wrong)[:40]):
                self.assertEqual(self.page.send("PUT", self.address, {"version": 1, "plan": wrong}).status_code, 422)
        self.assertEqual(Shoot.objects.get(pk=self.shoot.pk).version, 1)

    def test_several_changes_of_one_place_are_undone_in_turn(self) -> None:
        """As one edit after another within a change, and as one change after another."""
        plan = self.dumped()
        edits = [{"path": "camera.iso", "value": iso} for iso in (400, 800, 1600)]
        for changes in (
            [{"do": "edits", "edits": edits}],
            [{"do": "edits", "edits": [edit]} for edit in edits],
            [{"do": "edits", "edits": edits[:2]}, {"do": "edits", "edits": edits[1:]}],
        ):
            told = self.page.send("POST", "/api/evaluate", {"plan": plan, "changes": changes}).json()
            self.assertEqual(told["plan"]["camera"]["iso"], 1600)
            back = {"plan": told["plan"], "changes": [{"do": "edits", "edits": told["undo"]}]}
            self.assertEqual(
                self.page.send("POST", "/api/evaluate", back).json()["plan"]["camera"]["iso"], plan["camera"]["iso"]
            )

    def test_changes_come_back_with_their_undo_or_with_what_is_wrong_at_its_place(self) -> None:
        ask = {"plan": self.dumped(), "changes": [{"do": "type", "path": "clip.interval", "text": "20 s"}]}
        told = self.page.send("POST", "/api/evaluate", ask).json()
        self.assertEqual(told["evaluation"]["interval_s"], 20)
        self.assertEqual(told["undo"], [{"path": "clip.pegs", "value": self.dumped()["clip"]["pegs"]}])
        for path, text, expected in (
            ("beat.exposure_s", "ages", "a time such as"),
            ("clip.frames", "-4", "a whole number"),
            ("clip.interval", "0", "an interval is more than nothing"),
            ("camera.iso", "1/2", "a whole number"),
            ("nowhere.at.all", "1", "has no"),
        ):
            with self.subTest(path=path, text=text):
                ask["changes"] = [{"do": "type", "path": path, "text": text}]
                answer = self.page.send("POST", "/api/evaluate", ask)
                self.assertEqual(answer.status_code, 422)
                problem = answer.json()["problems"][0]
                self.assertEqual(problem["path"], path)
                self.assertIn(expected, problem["expected"])

    def test_plan_files_come_in_whole_or_not_at_all(self) -> None:
        out = self.page.get(f"/files/shoots/{self.shoot.pk}/plan.json")
        self.assertIn("harbour-refloat.bridle.json", out.headers["Content-Disposition"])
        back = self.page.send("POST", "/api/shoots/import", out.content)
        self.assertEqual(back.status_code, 201)
        self.assertEqual(Shoot.objects.get(pk=back.json()["id"]).read(), self.plan)
        for raw, status in ((b"{", 422), (b"\xff", 422), (b'{"bridle_plan": 99}', 422), (b" " * 50_000_000, 413)):
            with self.subTest(raw=raw[:20]):
                answer = self.page.send("POST", "/api/shoots/import", raw)
                self.assertEqual(answer.status_code, status)
                self.assertTrue(answer.json()["message"])
        self.assertEqual(Shoot.objects.count(), 2)

    def test_find_duplicate_bin_and_back(self) -> None:
        copy = self.page.send("POST", f"{self.address}/duplicate", {}).json()
        self.assertEqual(copy["plan"]["shoot"]["name"], "Harbour refloat, copy")
        self.assertEqual(self.listed("?find=HARBOUR+copy"), ["Harbour refloat, copy"])
        self.assertEqual(len(self.listed("?find=ellary+tide")), 2)
        self.page.send("POST", f"{self.address}/bin", {})
        self.assertEqual(
            (self.listed(""), self.listed("?binned=true")), (["Harbour refloat, copy"], ["Harbour refloat"])
        )
        self.page.send("POST", f"{self.address}/back", {})
        self.assertEqual(len(self.listed("")), 2)

    def test_the_frame_table_of_an_open_clip_says_why_not(self) -> None:
        pegless = self.plan.model_copy(update={"clip": self.plan.clip.model_copy(update={"pegs": ()})})
        answer = self.page.get(f"/files/shoots/{keep(pegless).pk}/frames.csv")
        self.assertEqual((answer.status_code, b"open" in answer.content), (409, True))


class Made(TestCase):
    def test_the_committed_description_of_the_api_is_true(self) -> None:
        committed = json.loads((ROOT / "frontend/src/api/openapi.json").read_text())
        self.assertEqual(committed, json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api/"))))
        self.assertEqual((ROOT / "frontend/src/api/drives.json").read_text(), drives_text())
        self.assertEqual((ROOT / "frontend/src/api/formats.json").read_text(), formats_text())

    def test_the_key_is_made_once_and_kept(self) -> None:
        with TemporaryDirectory() as folder:
            file = Path(folder) / "deep" / "key"
            key = secret_key(file)
            self.assertEqual((secret_key(file), len(key) >= 50, file.stat().st_mode & 0o077), (key, True, 0))
