"""The window: shows the core and edits it."""
