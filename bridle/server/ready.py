"""Making the data ready for a server: looked at, copied before it is changed, brought to today's form."""

import shutil
from pathlib import Path

from django.core.management import call_command
from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor

from bridle.datafolder.copies import UPDATE, clear_halves, set_aside
from bridle.datafolder.health import FULL, UnwellError, check, why_no_file, why_not, writable
from bridle.datafolder.where import database, for_its_owner_only
from bridle.server.house.room import let_it_vacuum_itself, vacuums_itself

LEAST_FREE_BYTES = 1_000_000
NEWER = "was written by a newer Bridle than this one. Nothing was changed; use that one, or restore an older copy."


def make_ready(folder: Path) -> list[str]:
    """Bring the data to today's form; returns what is worth saying. Raises `UnwellError`; overwrites nothing."""
    said: list[str] = []
    clear_halves(folder)
    there = check(folder)
    try:
        steps = _steps()
        if there and steps:
            copy = set_aside(folder, UPDATE)
            said.append(f"the database is brought up to date; a copy of it as it was is {copy}")
        if steps:
            call_command("migrate", verbosity=0, interactive=False)
        if not vacuums_itself() and shutil.disk_usage(folder).free > 2 * database(folder).stat().st_size:
            let_it_vacuum_itself()
    except DatabaseError as error:
        raise UnwellError(f"{folder}: {why_not(error)[1]}") from error
    except OSError as error:
        raise UnwellError(f"{folder}: {why_no_file(error)[1]}") from error
    finally:
        connection.close()
    for_its_owner_only(folder)
    writable(folder)
    if shutil.disk_usage(folder).free < LEAST_FREE_BYTES:
        said.append(FULL)
    return said


def _steps() -> bool:
    """Whether something is to be migrated. Raises `UnwellError` for a database that is ahead of this program."""
    executor = MigrationExecutor(connection)
    loader = executor.loader
    ours = {app for app, _ in loader.disk_migrations}
    unknown = [key for key in loader.applied_migrations if key[0] in ours and key not in loader.disk_migrations]
    if unknown:
        raise UnwellError(f"The database {NEWER}")
    return bool(executor.migration_plan(loader.graph.leaf_nodes()))
