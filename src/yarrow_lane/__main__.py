"""python -m yarrow_lane"""

import sys

from yarrow_lane.ui.main import main

sys.exit(main())
