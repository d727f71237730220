"""The books: what they show (view, bench) and how they are touched (page, money lines, quote bar)."""
