"""Small networks against a pencil, and Kirchhoff's laws for any."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from bridle.core.subjects.circuits.network import Contact, Diode, Element, Resistor, Supply, solve

FIVE = Supply("plus", "ground", 5.0, 0.001, "supply")


class ByPencil(TestCase):
    """What a meter would show."""

    def test_a_divider(self) -> None:
        """Two to one: a third of five volts over the lower resistor, and five thirds of a milliampere through both."""
        found = solve([FIVE, Resistor("plus", "middle", 2000), Resistor("middle", "ground", 1000, "lower")])
        self.assertAlmostEqual(found.across("middle", "ground") or 0, 5 / 3, places=5)
        self.assertAlmostEqual(found.amps["lower"] * 1000, 5 / 3, places=5)

    def test_a_light_behind_its_resistor_and_the_same_turned_round(self) -> None:
        """Five volts less 1.2 over 330 and 5 ohms: 11.3 mA; turned round, nothing."""
        for anode, cathode, wanted in (("led", "ground", 3.8 / 335.001), ("ground", "led", 0.0)):
            found = solve([FIVE, Resistor("plus", "led", 330), Diode(anode, cathode, 1.2, 5, "light")])
            self.assertAlmostEqual(found.amps["light"], wanted, places=7)

    def test_a_relay_pulls_in_from_three_quarters_on(self) -> None:
        """A coil of 100 ohms that needs 37.5 mA: at 3.7 V it lets go, at 3.8 V it changes over."""
        for volts, open_closes in ((3.7, False), (3.8, True)):
            found = solve([
                Supply("plus", "ground", volts, 0.001),
                Resistor("plus", "ground", 100, "coil"),
                Contact("common", "open", 0.1, "coil", 0.0375),
                Contact("common", "closed", 0.1, "coil", 0.0375, closes=False),
                Supply("lamp", "common", 12.0, 0.1, "lamp"),
                Resistor("open", "lamp", 120, "through open"),
                Resistor("closed", "lamp", 120, "through closed"),
            ])  # fmt: skip
            through = {name: abs(found.amps[f"through {name}"]) > 0.09 for name in ("open", "closed")}
            self.assertEqual(through, {"open": open_closes, "closed": not open_closes})

    def test_two_circuits_that_share_no_wire_are_no_circuit(self) -> None:
        """An optocoupler: its light's side and its output's side have no voltage to one another."""
        light: list[Element] = [FIVE, Resistor("plus", "led", 330), Diode("led", "ground", 1.2, 5, "light")]
        output: list[Element] = [Supply("own", "own ground", 3.0, 0.01), Resistor("own", "contact", 20_000),
                  Diode("contact", "own ground", 0.1, 60, lit_by="light", at_least_a=0.005)]  # fmt: skip
        found = solve([*light, *output])
        self.assertIsNone(found.across("plus", "own"))
        self.assertFalse(found.joined("ground", "own ground"))
        self.assertTrue(found.joined("contact", "own ground"))
        self.assertAlmostEqual(found.across("contact", "own ground") or 0, 0.1 + 60 * 2.9 / 20_060.01, places=5)
        dark = solve([Resistor("plus", "led", 330), Diode("led", "ground", 1.2, 5, "light"), *output])
        self.assertAlmostEqual(dark.across("contact", "own ground") or 0, 3.0, places=3)

    def test_what_takes_away_its_own_current_never_rests(self) -> None:
        """A buzzer: the coil hangs on its own normally closed contact."""
        coil = Resistor("coil", "ground", 100, "coil")
        found = solve([FIVE, Contact("plus", "coil", 0.1, "coil", 0.03, closes=False), coil])
        self.assertFalse(found.rests)

    def test_a_resistance_of_nothing_is_refused(self) -> None:
        with self.assertRaises(ValueError):
            solve([Resistor("a", "b", 0.0)])


resistors = st.builds(
    lambda pair, ohms, number: Resistor(pair[0], pair[1], ohms, f"r{number}"),
    st.sampled_from([("a", "b"), ("b", "c"), ("c", "d"), ("a", "d"), ("a", "c"), ("b", "d")]),
    st.floats(0.1, 1e5),
    st.integers(0, 10**9),
)


class Laws(TestCase):
    """Whatever is joined with whatever."""

    @given(st.lists(resistors, min_size=1, max_size=8, unique_by=lambda one: one.name), st.floats(0.1, 24))
    def test_as_much_flows_in_as_out(self, parts: list[Resistor], volts: float) -> None:
        """Kirchhoff: at every node all currents come to nothing; over every resistor its own law holds."""
        supply = Supply("a", "d", volts, 1.0, "supply")
        elements: list[Element] = [*parts, supply]
        found = solve(elements)
        most = max(abs(flow) for flow in found.amps.values())
        for node in found.parts:
            flows = [found.amps[one.name] * ((one.a == node) - (one.b == node)) for one in parts]
            flows.append(found.amps["supply"] * ((node == "a") - (node == "d")))
            self.assertAlmostEqual(sum(flows), 0.0, delta=1e-6 * max(most, 1e-3))
        for one in parts:
            self.assertAlmostEqual(found.volts[one.a] - found.volts[one.b], found.amps[one.name] * one.ohms, places=6)
