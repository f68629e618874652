"""The print bench: a file read, stops put in, the changed file proven; reader, inserter and printer meet only here."""
