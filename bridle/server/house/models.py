"""One row: what Bridle knows of its own time."""

from django.db import models


class House(models.Model):
    """`ran_s` counts the seconds in which a server ran; `seen_at` is the clock when that was written last.

    A jump of the clock is remembered by `jumped_ran_s`, the running time at which it was noticed, with the clock
    before it and after it; `jump_read` once somebody has put the notice of it away.
    """

    ran_s = models.FloatField(default=0.0)
    seen_at = models.DateTimeField(null=True)
    jumped_ran_s = models.FloatField(null=True)
    jumped_from = models.DateTimeField(null=True)
    jumped_to = models.DateTimeField(null=True)
    jump_read = models.BooleanField(default=False)
