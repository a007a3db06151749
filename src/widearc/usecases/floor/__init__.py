"""The Floor: sessions under way, and the sets that are done in them."""
