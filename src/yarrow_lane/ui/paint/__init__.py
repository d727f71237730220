"""Draw functions: painter, rect and a plain description in; nothing kept."""
