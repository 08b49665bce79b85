#include <math.h>
#include <stdio.h>
#include <stdlib.h>
#include <time.h>

/* RK4 on a driven pendulum, written out by hand. */
int main(int argc, char **argv) {
  long steps = argc > 1 ? atol(argv[1]) : 100000;
  double w = 1.3, c = 0.2, x = 1, v = 0, h = 20.0 / steps;
  struct timespec t0, t1;
  clock_gettime(CLOCK_MONOTONIC, &t0);
  for (long n = 0; n < steps; n++) {
    double t = 0 + n * h;
    double x1 = v, v1 = -w * sin(x) - c * v + cos(t);
    double p = x + h / 2 * x1, q = v + h / 2 * v1, s = t + h / 2;
    double x2 = q, v2 = -w * sin(p) - c * q + cos(s);
    p = x + h / 2 * x2, q = v + h / 2 * v2;
    double x3 = q, v3 = -w * sin(p) - c * q + cos(s);
    p = x + h * x3, q = v + h * v3, s = t + h;
    double x4 = q, v4 = -w * sin(p) - c * q + cos(s);
    x = x + h / 6 * (x1 + 2 * x2 + 2 * x3 + x4);
    v = v + h / 6 * (v1 + 2 * v2 + 2 * v3 + v4);
  }
  clock_gettime(CLOCK_MONOTONIC, &t1);
  printf("{\"seconds\": %.9f, \"values\": [%.17g, %.17g]}\n", (t1.tv_sec - t0.tv_sec) + 1e-9 * (t1.tv_nsec - t0.tv_nsec), x, v);
  return 0;
}
