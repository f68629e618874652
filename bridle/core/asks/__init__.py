"""What a person asked for, as edits of the plan; and the fixes that chapters offer alike."""
