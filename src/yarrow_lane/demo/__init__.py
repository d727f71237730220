"""The demo studio, made by calling the same edits a painter makes."""
