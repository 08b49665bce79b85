"""RK4 on a driven pendulum, written out by hand."""
import json
import sys
import time
from math import cos, sin

steps = int(sys.argv[1])
w, c, x, v = 1.3, 0.2, 1.0, 0.0
h = 20.0 / steps
start = time.perf_counter()
for n in range(steps):
    t = 0 + n * h
    x1 = v
    v1 = -w * sin(x) - c * v + cos(t)
    p = x + h / 2 * x1
    q = v + h / 2 * v1
    s = t + h / 2
    x2 = q
    v2 = -w * sin(p) - c * q + cos(s)
    p = x + h / 2 * x2
    q = v + h / 2 * v2
    x3 = q
    v3 = -w * sin(p) - c * q + cos(s)
    p = x + h * x3
    q = v + h * v3
    s = t + h
    x4 = q
    v4 = -w * sin(p) - c * q + cos(s)
    x = x + h / 6 * (x1 + 2 * x2 + 2 * x3 + x4)
    v = v + h / 6 * (v1 + 2 * v2 + 2 * v3 + v4)
print(json.dumps({"seconds": time.perf_counter() - start, "values": [x, v]}))
