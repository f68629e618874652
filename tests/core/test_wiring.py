"""What the camera hears, chain by chain: thirty right and wrong ones, and any that a random hand solders."""

from typing import Any
from unittest import TestCase

from hypothesis import assume, given
from hypothesis import strategies as st

from bridle.core.evaluate import evaluate
from bridle.core.foreseen import foreseen
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import apply
from bridle.core.reckon.hearing import STAGES, Hearing, hearing
from bridle.core.reckon.wiring import wiring
from tests.circuit import Sees, sees
from tests.wired import BODY, CHAINS, CUT, LISTENS, chain


def told(found: Hearing) -> tuple[str, ...]:
    """What the camera sees, in the letters of the table; a headset's key by itself."""
    camera = found.wiring.parts.camera
    assert camera is not None
    if camera.hears == "headset button":
        return tuple(found.stages[stage].key or "" for stage in STAGES)
    return tuple("f" * found.stages[stage].focus + "s" * found.stages[stage].shutter for stage in STAGES)


def keyed(ohms: str) -> str:
    return next((key for key, low, high in (("play", 0, 70), ("volume up", 210, 290), ("volume down", 360, 680),
                 ("assistant", 110, 180)) if ohms and low <= float(ohms) <= high), "")  # fmt: skip


def second(plan: Plan) -> Sees | None:
    """The second opinion on the joins that are there."""
    wired = wiring(plan)
    assert wired is not None
    roles = wired.lead.roles if wired.lead else ()
    return sees(plan, [(join.a, join.b) for join in wired.joins], roles)


class Chains(TestCase):
    """The table: by hand, by the core, and by the second solver."""

    def test_each_chain_is_heard_as_it_is(self) -> None:
        """Three opinions on every chain: the table's, the core's and the second solver's."""
        self.assertGreaterEqual(len(CHAINS), 30)
        for name, (plan, seen, tied, verdict) in CHAINS.items():
            with self.subTest(name):
                found, other = hearing(plan), second(plan)
                assert found is not None and other is not None
                phone = "phone" in {copy.card.kind for copy in plan.kit.copies}
                self.assertEqual(told(found), tuple(keyed(ohms) for ohms in seen) if phone else seen)
                self.assertEqual((other.rest, other.half, other.full), seen)
                self.assertEqual((found.tied, other.tied, found.verdict), (tied, tied, verdict))

    def test_where_nothing_is_wired_nothing_is_said(self) -> None:
        """A camera's own timer, an app, a camera that listens to no contact."""
        for plan in (chain(BODY), chain("phone-app", "phone"), chain("print-switch", "phone"), chain("remote-timer")):
            self.assertIsNone(hearing(plan))


class TwoContacts(TestCase):
    """A switch with two contacts: nobody can tell the common one, and nobody has to."""

    def test_what_closes_when_pressed_fires_and_what_closes_at_rest_does_not(self) -> None:
        for stage, verdict in (("full", "takes"), ("rest", "not known")):
            readings = [{"stage": one, "a": 0, "b": 1, "yes": one == stage} for one in ("rest", "full")]
            switch = {"wires": ["one", "other"], "readings": readings}
            found = hearing(chain("print-switch", BODY, trigger={"switch": switch}))
            assert found is not None
            self.assertEqual(found.verdict, verdict)


class Deaf(TestCase):
    """A camera that listens to no contact, behind each thing that closes one."""

    def test_a_way_is_offered_and_once_it_is_taken_the_camera_listens(self) -> None:
        """What else is wrong with the chain comes to light then, and has a way of its own."""
        relays = 0
        for source in ("print-switch", "printer-pin", "microcontroller", "headset-button"):
            for between in COUPLINGS:
                for camera in ("phone", "compact")[: 1 + (between in ((), ("relay",)))]:
                    plan = chain(source, *between, camera, **{camera: {"hears": "nothing"}})
                    told = next(one for one in foreseen(plan) if one.code == "camera-hears-no-contact")
                    snag = next(one for one in evaluate(plan).snags if one.code == told.code)
                    after = apply(plan, snag.fixes[0].edits)[0]
                    left = [one for one in evaluate(after).snags if one.severity == "stop"]
                    with self.subTest(source=source, between=between, camera=camera):
                        self.assertTrue(told.helps[0])
                        self.assertNotIn(told.code, [one.code for one in left])
                        self.assertTrue(all(one.fixes for one in left), left)
                        plain = camera == "phone" and (between in ((), ("relay",), ("relay-board",)))
                        if plain and (between or source in ("print-switch", "headset-button")):
                            found = hearing(after)
                            self.assertEqual((left, found and found.verdict), ([], "takes"))
                            relays += "driver" in snag.fixes[0].consequence
        self.assertEqual(relays, 3)


SOURCES = (
    "remote-timer",
    "print-switch",
    "printer-pin",
    "microcontroller",
    "print-host",
    "headset-button",
    "controller",
)
COUPLINGS = ((), ("optocoupler",), ("relay",), ("relay-board",), ("two-optocouplers",), ("volume-resistor",),
             ("optocoupler", "volume-resistor"))  # fmt: skip


@st.composite
def soldered(draw: st.DrawFn) -> Plan:
    """Random cards with random figures, and ends joined at random."""
    source, between = draw(st.sampled_from(SOURCES)), draw(st.sampled_from(COUPLINGS))
    lead = draw(st.sampled_from(((), ("release-lead",), ("cut-lead",))))
    camera = draw(st.sampled_from((BODY, "compact", "phone")))
    changed: dict[str, Any] = {
        source.replace("-", "_"): {
            "volts": draw(st.sampled_from([3.3, 5.0, 12.0])), "half_press": draw(st.booleans()),
            "coupling": draw(st.sampled_from(["none", "optocoupler"])),
        },
        camera.replace("-", "_"): draw(st.sampled_from([
            {**LISTENS}, {"hears": "full press"}, {"hears": "half and full press", "input_v": 5.0}])),
    }  # fmt: skip
    for name in between:
        changed[name.replace("-", "_")] = {"series_ohm": draw(st.sampled_from([0, 100, 330, 2200]))}
    names = (source, *between, *lead, camera)
    plan = chain(*names, lead=CUT, **changed)
    wired = wiring(plan)
    assume(wired is not None)
    assert wired is not None
    ends = [f"{part}.{end}" for part, of in wired.ends.items() for end in of]
    pairs = st.tuples(st.sampled_from(ends), st.sampled_from(ends)).filter(lambda pair: pair[0] != pair[1])
    kept = [(join.a, join.b) for join in wired.joins if draw(st.integers(0, 5))]
    return chain(*names, lead=CUT, joins=[*kept, *draw(st.lists(pairs, max_size=3))], **changed)


class AnyChain(TestCase):
    """A chain that nobody foresaw."""

    @given(soldered())
    def test_both_solvers_see_the_same(self, plan: Plan) -> None:
        """Whatever is joined with whatever: the same contacts close at the same stages."""
        found, other = hearing(plan), second(plan)
        assume(found is not None and other is not None)
        assert found is not None and other is not None
        seen = (other.rest, other.half, other.full)
        phone = found.wiring.parts.camera is not None and found.wiring.parts.camera.hears == "headset button"
        self.assertEqual(told(found), tuple(keyed(ohms) for ohms in seen) if phone else seen)
        self.assertEqual(found.tied, other.tied)
