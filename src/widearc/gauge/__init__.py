"""Force gauge and position sensor. Empty yet: nothing reads a gauge so far."""
