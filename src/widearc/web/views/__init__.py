"""One blueprint per user task."""
