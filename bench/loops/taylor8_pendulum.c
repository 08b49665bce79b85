#include <math.h>
#include <stdio.h>
#include <stdlib.h>
#include <time.h>

/* Taylor 8 on a driven pendulum by the recurrences of its series, written out by hand. */
int main(int argc, char **argv) {
  long steps = argc > 1 ? atol(argv[1]) : 100000;
  enum { P = 8 };
  double w = 1.3, c = 0.2, y = 1, z = 0, h = 20.0 / steps;
  double factor[P + 1] = {1, h, h * h / 2, h * h * h / 6};
  double factorial = 6;
  for (int k = 4; k <= P; k++) factorial *= k, factor[k] = pow(h, k) / factorial;
  struct timespec t0, t1;
  clock_gettime(CLOCK_MONOTONIC, &t0);
  for (long n = 0; n < steps; n++) {
    double t = 0 + n * h;
    double x[P + 1], v[P + 1], f[P], si[P], co[P], ds[P], dc[P];
    x[0] = y, v[0] = z, si[0] = sin(y), co[0] = cos(y), ds[0] = sin(t), dc[0] = cos(t);
    f[0] = -w * si[0] - c * v[0] + dc[0];
    for (int k = 1; k <= P; k++) {
      x[k] = v[k - 1] / k;
      v[k] = f[k - 1] / k;
      if (k == P) break;
      double a = x[1] * co[k - 1], b = x[1] * si[k - 1];
      for (int j = 2; j <= k; j++) a += j * x[j] * co[k - j], b += j * x[j] * si[k - j];
      si[k] = a / k, co[k] = -b / k;
      ds[k] = dc[k - 1] / k, dc[k] = -ds[k - 1] / k;
      f[k] = -w * si[k] - c * v[k] + dc[k];
    }
    double p = y, q = z, m = 1;
    for (int k = 1; k <= P; k++) {
      p += factor[k] * (m * v[k - 1]);
      q += factor[k] * (m * f[k - 1]);
      m *= k;
    }
    y = p, z = q;
  }
  clock_gettime(CLOCK_MONOTONIC, &t1);
  printf("{\"seconds\": %.9f, \"values\": [%.17g, %.17g]}\n", (t1.tv_sec - t0.tv_sec) + 1e-9 * (t1.tv_nsec - t0.tv_nsec), y, z);
  return 0;
}
