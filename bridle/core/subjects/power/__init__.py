"""Power for weeks: what a panel gives, what a battery holds, how a charge goes up and down, how warm a box gets."""
