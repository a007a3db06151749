"""The entries, by shelf: each module has its `ENTRIES` and the `SHELF` it stands on."""
