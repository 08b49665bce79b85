"""RK4 on 5,000 layers of soil, written out by hand."""
import json
import sys
import time

steps = int(sys.argv[1])
N = 5000
k = 0.3
h = 0.1 / steps
u = [(i + 1) / N for i in range(N)]


def rate(y):
    f = [0.0] * N
    f[0] = k * (0 - 2 * y[0] + y[1])
    for i in range(1, N - 1):
        f[i] = k * (y[i - 1] - 2 * y[i] + y[i + 1])
    f[N - 1] = k * (y[N - 2] - 2 * y[N - 1] + 0)
    return f


start = time.perf_counter()
for n in range(steps):
    k1 = rate(u)
    k2 = rate([u[i] + h / 2 * k1[i] for i in range(N)])
    k3 = rate([u[i] + h / 2 * k2[i] for i in range(N)])
    k4 = rate([u[i] + h * k3[i] for i in range(N)])
    u = [u[i] + h / 6 * (k1[i] + 2 * k2[i] + 2 * k3[i] + k4[i]) for i in range(N)]
print(json.dumps({"seconds": time.perf_counter() - start, "values": [u[0], u[-1]]}))
