"""Adams-Bashforth 4 on marmots and lynx, started with RK4, written out by hand."""
import json
import sys
import time

steps = int(sys.argv[1])
a, b, c, d, m, l = 1.1, 0.4, 0.1, 0.4, 10.0, 5.0
h = 12.0 / steps
fm1 = fm2 = fm3 = fl1 = fl2 = fl3 = 0.0
start = time.perf_counter()
for n in range(steps):
    fm = a * m - b * m * l
    fl = c * m * l - d * l
    if n < 3:
        p = m + h / 2 * fm
        q = l + h / 2 * fl
        m2 = a * p - b * p * q
        l2 = c * p * q - d * q
        p = m + h / 2 * m2
        q = l + h / 2 * l2
        m3 = a * p - b * p * q
        l3 = c * p * q - d * q
        p = m + h * m3
        q = l + h * l3
        m4 = a * p - b * p * q
        l4 = c * p * q - d * q
        m = m + h / 6 * (fm + 2 * m2 + 2 * m3 + m4)
        l = l + h / 6 * (fl + 2 * l2 + 2 * l3 + l4)
    else:
        m = m + h / 24 * (55 * fm - 59 * fm1 + 37 * fm2 - 9 * fm3)
        l = l + h / 24 * (55 * fl - 59 * fl1 + 37 * fl2 - 9 * fl3)
    fm3, fm2, fm1, fl3, fl2, fl1 = fm2, fm1, fm, fl2, fl1, fl
print(json.dumps({"seconds": time.perf_counter() - start, "values": [m, l]}))
