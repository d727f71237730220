"""What scripts/bench measures."""
