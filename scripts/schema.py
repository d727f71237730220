"""Write the published schema of a commission's archive anew from the types: `python scripts/schema.py`. A test compares both."""

import json
from pathlib import Path

from yarrow_lane.store.archive_schema import made_schema

TARGET = Path(__file__).resolve().parent.parent / "src/yarrow_lane/store/commission-archive.schema.json"

if __name__ == "__main__":
    TARGET.write_text(json.dumps(made_schema(), indent=1, sort_keys=True) + "\n")
