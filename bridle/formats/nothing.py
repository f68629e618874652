"""What a writer raises where there is nothing to write."""


class NothingToWriteError(ValueError):
    """The plan leaves open what the file would hold, or holds nothing that belongs in it; says why."""
