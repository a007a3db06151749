"""Things a developer runs; not part of the product."""
