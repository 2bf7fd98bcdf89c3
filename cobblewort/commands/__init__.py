"""What the commands of the command line do, where that is more than a call."""
