"""The loops of decimal-run.test.ts written out with the decimal module: one line of results for each run."""

import sys
from decimal import ROUND_DOWN, ROUND_HALF_EVEN, ROUND_HALF_UP, Context, Decimal as D, setcontext

PROBLEMS = {
    "sluice": (lambda t, y: (-D("0.35") * y[0].sqrt(),), ("4",), "8"),
    "frost": (lambda t, y: (D("0.6") - D("1.7") * y[0] * y[0],), ("0.125",), "2"),
    "thermistor": (lambda t, y: (-D("0.8") * (y[0] - D("12.5")) + D("3.1") / (D(1) + t),), ("31.7",), "3"),
    "quotient": (lambda t, y: ((t * t + D(1)) / (y[0] + D("0.3")),), ("1.1",), "1"),
    "pair": (
        lambda t, y: (D("1.1") * y[0] - D("0.4") * y[0] * y[1], D("0.1") * y[0] * y[1] - D("0.4") * y[1]),
        ("9.5", "4.25"),
        "2",
    ),
    "sway": (lambda t, y: (y[1], -y[0] - y[1] / D(5)), ("1", "0.5"), "3"),
}


def plus(y, h, k):
    return tuple(a + h * b for a, b in zip(y, k))


def euler(f, t, h, y):
    return plus(y, h, f(t, y))


def heun(f, t, h, y):
    k1 = f(t, y)
    k2 = f(t + h, plus(y, h, k1))
    return tuple(a + h / D(2) * (b + c) for a, b, c in zip(y, k1, k2))


def midpoint(f, t, h, y):
    k1 = f(t, y)
    k2 = f(t + h / D(2), plus(y, h / D(2), k1))
    return plus(y, h, k2)


def kutta3(f, t, h, y):
    k1 = f(t, y)
    k2 = f(t + h / D(2), plus(y, h / D(2), k1))
    k3 = f(t + h, tuple(a - h * b + D(2) * h * c for a, b, c in zip(y, k1, k2)))
    return tuple(a + h / D(6) * (b + D(4) * c + d) for a, b, c, d in zip(y, k1, k2, k3))


def rk4(f, t, h, y):
    k1 = f(t, y)
    k2 = f(t + h / D(2), plus(y, h / D(2), k1))
    k3 = f(t + h / D(2), plus(y, h / D(2), k2))
    k4 = f(t + h, plus(y, h, k3))
    return tuple(
        a + h / D(6) * (b + D(2) * c + D(2) * d + e) for a, b, c, d, e in zip(y, k1, k2, k3, k4)
    )


METHODS = {"Euler": euler, "Heun": heun, "midpoint": midpoint, "Kutta 3": kutta3, "RK4": rk4}
ROUNDINGS = {"half-even": ROUND_HALF_EVEN, "half-up": ROUND_HALF_UP, "chop": ROUND_DOWN}


def text(value):
    sign, digits, exponent = value.as_tuple()
    whole = int("".join(map(str, digits)))
    while whole != 0 and whole % 10 == 0:
        whole //= 10
        exponent += 1
    return "0e0" if whole == 0 else f"{'-' if sign else ''}{whole}e{exponent}"


for name, (f, initial, end) in PROBLEMS.items():
    for method, step in METHODS.items():
        for digits in (4, 6, 34, 50):
            for rounding, mode in ROUNDINGS.items():
                setcontext(Context(prec=digits, rounding=mode))
                steps = int(sys.argv[1])
                h = (D(end) - D(0)) / D(steps)
                y = tuple(D(value) for value in initial)
                rows = []
                for n in range(steps):
                    y = step(f, D(0) + D(n) * h, h, y)
                    rows.append(" ".join(text(value) for value in y))
                print(f"{name}|{method}|{digits}|{rounding}|{';'.join(rows)}")
