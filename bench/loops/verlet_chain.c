#include <stdio.h>
#include <stdlib.h>
#include <time.h>

/* Velocity Verlet on a chain of 300 avalanche beacons on springs, written out by hand. */
int main(int argc, char **argv) {
  long steps = argc > 1 ? atol(argv[1]) : 100000;
  enum { N = 300 };
  static double x[N], v[N], a[N], half[N];
  double k = 40, c = 0.3, h = 10.0 / steps;
  for (int i = 0; i < N; i++) x[i] = (i + 1.0) / N, v[i] = 0;
  struct timespec t0, t1;
  clock_gettime(CLOCK_MONOTONIC, &t0);
#define CUBE(z) ((z) * (z) * (z))
#define RATE(f, y) do { \
    f[0] = k * (0 - 2 * y[0] + y[1]) - c * CUBE(y[0]); \
    for (int i = 1; i < N - 1; i++) f[i] = k * (y[i - 1] - 2 * y[i] + y[i + 1]) - c * CUBE(y[i]); \
    f[N - 1] = k * (y[N - 2] - 2 * y[N - 1] + 0) - c * CUBE(y[N - 1]); } while (0)
  for (long n = 0; n < steps; n++) {
    RATE(a, x);
    for (int i = 0; i < N; i++) half[i] = v[i] + h / 2 * a[i];
    for (int i = 0; i < N; i++) x[i] = x[i] + h * half[i];
    RATE(a, x);
    for (int i = 0; i < N; i++) v[i] = half[i] + h / 2 * a[i];
  }
  clock_gettime(CLOCK_MONOTONIC, &t1);
  printf("{\"seconds\": %.9f, \"values\": [%.17g, %.17g]}\n", (t1.tv_sec - t0.tv_sec) + 1e-9 * (t1.tv_nsec - t0.tv_nsec), x[0], x[N - 1]);
  return 0;
}
