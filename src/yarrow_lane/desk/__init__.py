"""The one owner of the current state: applies edits, keeps history, tells who listens. No Qt."""
