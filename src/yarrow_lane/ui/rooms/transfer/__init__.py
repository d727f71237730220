"""The transfer room: what it shows (view) and how it is touched (page, canvas)."""
