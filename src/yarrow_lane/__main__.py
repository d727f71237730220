"""python -m yarrow_lane"""

import sys

from yarrow_lane.start import main

if __name__ == "__main__":
    sys.exit(main())
