"""The job: rules and arithmetic, with no interface, no files and no clock of its own."""
