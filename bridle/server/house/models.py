"""One row: what Bridle knows of its own time."""

import secrets

from django.db import models


def new_identity() -> str:
    """A name that no other data folder has."""
    return secrets.token_hex(8)


class House(models.Model):
    """`ran_s` counts the seconds in which a server ran; `seen_at` is the clock when that was written last.

    A jump of the clock is remembered by `jumped_ran_s`, the running time at which it was noticed, with the clock
    before it and after it; `jump_read` once somebody has put the notice of it away. `identity` goes with the data,
    its copies included: work that a browser kept for one folder is never taken for another's.
    """

    identity = models.CharField(max_length=40, default=new_identity)
    ran_s = models.FloatField(default=0.0)
    seen_at = models.DateTimeField(null=True)
    jumped_ran_s = models.FloatField(null=True)
    jumped_from = models.DateTimeField(null=True)
    jumped_to = models.DateTimeField(null=True)
    jump_read = models.BooleanField(default=False)
