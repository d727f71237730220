"""The studio on disk: versions made of hashed parts, pictures by content hash."""
