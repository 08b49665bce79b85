#include <stdio.h>
#include <stdlib.h>
#include <time.h>

/* RK4 on marmots and lynx, written out by hand. */
int main(int argc, char **argv) {
  long steps = argc > 1 ? atol(argv[1]) : 1000000;
  double a = 1.1, b = 0.4, c = 0.1, d = 0.4, m = 10, l = 5, h = 12.0 / steps;
  struct timespec t0, t1;
  clock_gettime(CLOCK_MONOTONIC, &t0);
  for (long n = 0; n < steps; n++) {
    double m1 = m * (a - b * l), l1 = l * (c * m - d);
    double p = m + h / 2 * m1, q = l + h / 2 * l1;
    double m2 = p * (a - b * q), l2 = q * (c * p - d);
    p = m + h / 2 * m2, q = l + h / 2 * l2;
    double m3 = p * (a - b * q), l3 = q * (c * p - d);
    p = m + h * m3, q = l + h * l3;
    double m4 = p * (a - b * q), l4 = q * (c * p - d);
    m = m + h / 6 * (m1 + 2 * m2 + 2 * m3 + m4);
    l = l + h / 6 * (l1 + 2 * l2 + 2 * l3 + l4);
  }
  clock_gettime(CLOCK_MONOTONIC, &t1);
  printf("{\"seconds\": %.9f, \"values\": [%.17g, %.17g]}\n", (t1.tv_sec - t0.tv_sec) + 1e-9 * (t1.tv_nsec - t0.tv_nsec), m, l);
  return 0;
}
