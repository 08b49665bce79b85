#include <math.h>
#include <stdio.h>
#include <stdlib.h>
#include <time.h>

/* Adams-Bashforth 4 on marmots and lynx, started with RK4, written out by hand. */
int main(int argc, char **argv) {
  long steps = argc > 1 ? atol(argv[1]) : 100000;
  double a = 1.1, b = 0.4, c = 0.1, d = 0.4, m = 10, l = 5, h = 12.0 / steps;
  double fm1 = 0, fm2 = 0, fm3 = 0, fl1 = 0, fl2 = 0, fl3 = 0;
  struct timespec t0, t1;
  clock_gettime(CLOCK_MONOTONIC, &t0);
  for (long n = 0; n < steps; n++) {
    double fm = a * m - b * m * l, fl = c * m * l - d * l;
    if (n < 3) {
      double p = m + h / 2 * fm, q = l + h / 2 * fl;
      double m2 = a * p - b * p * q, l2 = c * p * q - d * q;
      p = m + h / 2 * m2, q = l + h / 2 * l2;
      double m3 = a * p - b * p * q, l3 = c * p * q - d * q;
      p = m + h * m3, q = l + h * l3;
      double m4 = a * p - b * p * q, l4 = c * p * q - d * q;
      m = m + h / 6 * (fm + 2 * m2 + 2 * m3 + m4);
      l = l + h / 6 * (fl + 2 * l2 + 2 * l3 + l4);
    } else {
      m = m + h / 24 * (55 * fm - 59 * fm1 + 37 * fm2 - 9 * fm3);
      l = l + h / 24 * (55 * fl - 59 * fl1 + 37 * fl2 - 9 * fl3);
    }
    fm3 = fm2, fm2 = fm1, fm1 = fm, fl3 = fl2, fl2 = fl1, fl1 = fl;
  }
  clock_gettime(CLOCK_MONOTONIC, &t1);
  printf("{\"seconds\": %.9f, \"values\": [%.17g, %.17g]}\n", (t1.tv_sec - t0.tv_sec) + 1e-9 * (t1.tv_nsec - t0.tv_nsec), m, l);
  return 0;
}
