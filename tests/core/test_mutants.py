"""Every mistake of `make mutants` can still be made: its line stands once in the code, and its tests are there."""

import importlib
from unittest import TestCase

from tests.mutants import MUTANTS, ROOT


class Mutants(TestCase):
    def test_each_finds_its_line_and_its_tests(self) -> None:
        self.assertGreaterEqual(len(MUTANTS), 30)
        for mutant in MUTANTS:
            with self.subTest(mutant.wrong):
                text = (ROOT / mutant.file).read_text()
                self.assertEqual(text.count(mutant.was), 1)
                self.assertNotEqual(text.replace(mutant.was, mutant.now), text)
                for name in mutant.tests:
                    importlib.import_module(name)
