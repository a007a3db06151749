"""Wide Arc: resistance curves of leg training and the stand-in that comes closest."""
