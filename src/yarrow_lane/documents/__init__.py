"""One writer per document: plain value in, bytes out."""
