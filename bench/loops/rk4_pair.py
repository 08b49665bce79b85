"""RK4 on marmots and lynx, written out by hand."""
import json
import sys
import time

steps = int(sys.argv[1])
a, b, c, d, m, l = 1.1, 0.4, 0.1, 0.4, 10.0, 5.0
h = 12.0 / steps
start = time.perf_counter()
for n in range(steps):
    m1 = m * (a - b * l)
    l1 = l * (c * m - d)
    p = m + h / 2 * m1
    q = l + h / 2 * l1
    m2 = p * (a - b * q)
    l2 = q * (c * p - d)
    p = m + h / 2 * m2
    q = l + h / 2 * l2
    m3 = p * (a - b * q)
    l3 = q * (c * p - d)
    p = m + h * m3
    q = l + h * l3
    m4 = p * (a - b * q)
    l4 = q * (c * p - d)
    m = m + h / 6 * (m1 + 2 * m2 + 2 * m3 + m4)
    l = l + h / 6 * (l1 + 2 * l2 + 2 * l3 + l4)
print(json.dumps({"seconds": time.perf_counter() - start, "values": [m, l]}))
