"""The numbers of a plan, without a word said about them."""
