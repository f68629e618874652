"""Small simulated devices that obey commands and send events."""
