"""Keeping what one has: backups, and everything as one file."""
