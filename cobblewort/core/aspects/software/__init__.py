"""Images, drivers and what is needed for setting up."""
