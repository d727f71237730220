"""What one stroke does to the regions: name a piece, cut, draw a part, draw a border anew."""
