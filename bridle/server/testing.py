"""The test runner: Django's own, which ends with a line that counts."""

from typing import Any
from unittest import TestSuite

from django.db import connections
from django.test.runner import DiscoverRunner


class CountingRunner(DiscoverRunner):
    """Ends with `N passed, N failed`, and `, N skipped` where any were."""

    def setup_databases(self, **options: Any) -> Any:
        """A test database is copied for each process that runs tests, so all of it has to lie in its one file."""
        connections["default"].settings_dict["OPTIONS"]["init_command"] = "PRAGMA foreign_keys=ON;"
        return super().setup_databases(**options)

    def suite_result(self, suite: TestSuite, result: Any, **options: Any) -> int:
        """Print the count; what cannot be loaded counts as failed."""
        bad = {test.id() for test, _ in (*result.failures, *result.errors)}
        failed = len(bad) + len(result.unexpectedSuccesses)
        skipped = len(result.skipped)
        passed = max(0, result.testsRun - failed - skipped)
        self.counted = f"{passed} passed, {failed} failed" + (f", {skipped} skipped" if skipped else "")
        return int(super().suite_result(suite, result, **options))

    def run_tests(self, *args: Any, **options: Any) -> int:
        """Print the line after everything else that the runner says."""
        failed = super().run_tests(*args, **options)
        print(self.counted, flush=True)
        return failed
