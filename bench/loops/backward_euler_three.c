#include <math.h>
#include <stdio.h>
#include <stdlib.h>
#include <time.h>

/* Backward Euler on three components, with Newton's method and elimination with pivots, written out by hand. */
static int solve(double m[3][3], double r[3]) {
  for (int j = 0; j < 3; j++) {
    int p = j;
    for (int i = j + 1; i < 3; i++)
      if (fabs(m[i][j]) > fabs(m[p][j])) p = i;
    if (!(fabs(m[p][j]) > 0) || !isfinite(m[p][j])) return 0;
    if (p != j) {
      for (int k = j; k < 3; k++) {
        double other = m[p][k];
        m[p][k] = m[j][k], m[j][k] = other;
      }
      double other = r[p];
      r[p] = r[j], r[j] = other;
    }
    for (int i = j + 1; i < 3; i++) {
      double factor = m[i][j] / m[j][j];
      if (factor == 0) continue;
      for (int k = j + 1; k < 3; k++) m[i][k] -= factor * m[j][k];
      r[i] -= factor * r[j];
    }
  }
  for (int i = 2; i >= 0; i--) {
    double sum = r[i];
    for (int k = i + 1; k < 3; k++) sum -= m[i][k] * r[k];
    r[i] = sum / m[i][i];
  }
  return 1;
}

int main(int argc, char **argv) {
  long steps = argc > 1 ? atol(argv[1]) : 100000;
  double p = 0.04, q = 100, s = 30, h = 40.0 / steps;
  double y[3] = {1, 0, 0};
  struct timespec t0, t1;
  clock_gettime(CLOCK_MONOTONIC, &t0);
  for (long n = 0; n < steps; n++) {
    double z[3] = {y[0], y[1], y[2]}, before = INFINITY, reach = 0;
    double scale = fmax(fmax(fabs(y[0]), fabs(y[1])), fabs(y[2]));
    for (int round = 1; round <= 50; round++) {
      double f[3] = {-p * z[0] + q * z[1] * z[2], p * z[0] - q * z[1] * z[2] - s * (z[1] * z[1]), s * (z[1] * z[1])};
      double r[3];
      for (int j = 0; j < 3; j++) r[j] = y[j] + h * f[j] - z[j];
      double m[3][3] = {
          {-(h * -p) + 1, -(h * (q * z[2])), -(h * (q * z[1]))},
          {-(h * p), -(h * (-(q * z[2]) - s * (2 * z[1]))) + 1, -(h * -(q * z[1]))},
          {-(h * 0), -(h * (s * (2 * z[1]))), -(h * 0) + 1},
      };
      if (!solve(m, r)) return 1;
      double moved = 0;
      for (int j = 0; j < 3; j++) {
        reach = fmax(reach, fabs(z[j]));
        z[j] += r[j];
        moved = fmax(moved, fabs(r[j]));
        reach = fmax(reach, fabs(z[j]));
      }
      if (moved <= fmax(4.440892098500626e-16 * reach, 6.938893903907228e-18 * scale) + 1e-300 ||
          (moved >= before && moved <= 1e-9 * (round > 2 ? fmax(reach, scale) : reach)))
        break;
      before = moved;
    }
    for (int j = 0; j < 3; j++) y[j] = z[j];
  }
  clock_gettime(CLOCK_MONOTONIC, &t1);
  printf("{\"seconds\": %.9f, \"values\": [%.17g, %.17g, %.17g]}\n", (t1.tv_sec - t0.tv_sec) + 1e-9 * (t1.tv_nsec - t0.tv_nsec), y[0], y[1], y[2]);
  return 0;
}
