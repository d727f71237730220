"""What all rooms say in one form: their part of a commission, an edit of it, and where they stand."""
