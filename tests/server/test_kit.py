"""The kit's API: cards are typed on, saved against a version, measured, compared with plans."""

import json
from typing import Any

from django.test import TestCase

from bridle.core.plan.document import Plan
from bridle.server.kit.models import KitCard
from bridle.server.shoots.models import keep
from tests.server.test_api import Page
from tests.strategies import copies, fitted, plan_of

USUAL = ["a tripod", "a rail", "a camera body", "a lens", "a trigger"]


class Kit(TestCase):
    def setUp(self) -> None:
        self.page = Page()

    def made(self, kind: str) -> dict[str, Any]:
        answer = self.page.send("POST", "/api/kit", {"like": kind})
        self.assertEqual(answer.status_code, 201)
        return dict(answer.json())

    def test_every_kind_of_card_is_made_with_defaults_and_found_again(self) -> None:
        kinds = ["body", "lens", "axis", "support", "mount", "trigger", "battery", "card", "lamp", "filter", "phone"]
        for kind in kinds:
            self.made(kind)
        shelf = self.page.get("/api/kit").json()
        self.assertEqual([line["card"]["kind"] for line in shelf["cards"]], kinds)
        self.assertEqual(self.page.send("POST", "/api/kit", {"like": "yacht"}).status_code, 422)

    def test_the_usual_cards_are_made_once_and_only_those_that_lack(self) -> None:
        own = self.made("body")
        self.made("lamp")
        for _ in range(2):
            answer = self.page.send("POST", "/api/kit/usual", {})
            self.assertEqual(answer.status_code, 201)
            shelf = answer.json()
            kinds = [line["card"]["kind"] for line in shelf["cards"]]
            self.assertEqual(kinds, ["body", "lamp", "support", "axis", "lens", "trigger"])
        by_id = {line["id"]: line["card"]["kind"] for line in shelf["cards"]}
        self.assertEqual([by_id[one] for one in shelf["starters"]], ["support", "axis", "body", "lens", "trigger"])
        self.assertIn(own["id"], shelf["starters"])
        self.page.send("POST", f"/api/kit/{own['id']}/bin", {})
        self.assertEqual(len(self.page.get("/api/kit").json()["starters"]), 4, "what is binned is no part of a rig")

    def test_two_windows_on_one_card(self) -> None:
        line = self.made("body")
        first, second = ({**line["card"], "name": name} for name in ("one", "two"))
        save = f"/api/kit/{line['id']}"
        self.assertEqual(self.page.send("PUT", save, {"version": 1, "card": first}).json()["version"], 2)
        stale = self.page.send("PUT", save, {"version": 1, "card": second})
        self.assertEqual((stale.status_code, stale.json()["kept"]["card"]["name"]), (409, "one"))
        self.assertEqual(KitCard.objects.get(pk=line["id"]).name, "one")

    def test_what_is_typed_is_read_at_its_place(self) -> None:
        rail = self.made("axis")["card"]
        for path, text, imperial, value in (
            ("high", "80 cm", False, 800.0),
            ("high", "30", True, 762.0),
            ("mass_g", "2 lb", True, 907.18474),
            ("settle_s", "1 1/2", False, "3/2"),
            ("carries_g", "", False, None),
            ("drive.teeth", "24", False, 24),
        ):
            with self.subTest(path=path, text=text):
                asked = {"card": rail, "path": path, "text": text, "imperial": imperial}
                at: Any = self.page.send("POST", "/api/kit/type", asked).json()["card"]
                for step in path.split("."):
                    at = at[step]
                self.assertEqual(at, value)
        for path, text in (("high", "long"), ("high", "-3"), ("drive.teeth", "1/2"), ("nowhere", "1")):
            with self.subTest(path=path, text=text):
                answer = self.page.send("POST", "/api/kit/type", {"card": rail, "path": path, "text": text})
                self.assertEqual(answer.status_code, 422)
                self.assertTrue(answer.json()["problems"][0]["expected"])

    def test_measuring_tells_before_anything_is_kept(self) -> None:
        line = self.made("body")
        asked = {"card": line["card"], "key": "write", "on": "2026-11-03"}
        asked["readings"] = [["10", "3", "21 s"], ["10", "3", "22"]]
        told = self.page.send("POST", "/api/kit/measure", asked).json()
        self.assertAlmostEqual(told["value"], 2.15)
        self.assertEqual(told["card"]["write_s"], "43/20")
        self.assertEqual(KitCard.objects.get(pk=line["id"]).version, 1)
        self.assertEqual(self.page.send("POST", "/api/kit/measure", {**asked, "readings": []}).status_code, 422)
        wrong = self.page.send(
            "POST", "/api/kit/measure", {**asked, "readings": [["10", "3", "21"], ["10", "3", "ages"]]}
        )
        self.assertEqual((wrong.status_code, wrong.json()["problems"][0]["path"]), (422, "readings.1.2"))

    def test_the_shelf_says_where_a_card_is_used_and_plans_hear_of_changes(self) -> None:
        line = self.made("body")
        copy = {**copies("full-frame-body")[0], "card": line["card"], "card_id": line["id"], "version": 1}
        plan: Plan = fitted(plan_of({}), [copy])
        used = [{"id": keep(plan).pk, "name": "Trial"}]
        self.assertEqual(self.page.get("/api/kit").json()["cards"][0]["used_in"], used)
        body = {"plan": json.loads(plan.model_dump_json())}
        self.assertEqual(self.page.send("POST", "/api/kit/compare", body).json(), {"changed": []})
        self.page.send("PUT", f"/api/kit/{line['id']}", {"version": 1, "card": {**line["card"], "write_s": "9"}})
        (found,) = self.page.send("POST", "/api/kit/compare", body).json()["changed"]
        self.assertEqual(found["differences"], ["writes in 9 s instead of 0.6 s"])

    def test_bin_and_back(self) -> None:
        line = self.made("lamp")
        self.page.send("POST", f"/api/kit/{line['id']}/bin", {})
        self.assertEqual(
            self.page.get("/api/kit").json(), {"cards": [], "starters": [], "usual": USUAL, "broken": [], "in_bin": 1}
        )
        self.page.send("POST", f"/api/kit/{line['id']}/back", {})
        self.assertEqual(len(self.page.get("/api/kit").json()["cards"]), 1)
