"""The deliver room: what it shows (view) and how it is touched (page, canvas)."""
