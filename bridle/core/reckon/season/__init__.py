"""A long run in numbers: what is drawn and stored, what the sun gives, when somebody has to come."""
