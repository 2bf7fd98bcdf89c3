"""The list of aspects, and what is told of a plan by all of them."""
