"""The nine rooms and the studio."""
