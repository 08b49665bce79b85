#include <stdio.h>
#include <stdlib.h>
#include <time.h>

/* RK4 on 5,000 patches of moss that grow and spread, written out by hand. */
int main(int argc, char **argv) {
  long steps = argc > 1 ? atol(argv[1]) : 100000;
  enum { N = 5000 };
  static double u[N], k1[N], k2[N], k3[N], k4[N], p[N];
  double k = 0.3, r = 0.8, h = 0.1 / steps;
  for (int i = 0; i < N; i++) u[i] = (i + 1.0) / N;
  struct timespec t0, t1;
  clock_gettime(CLOCK_MONOTONIC, &t0);
#define RATE(f, y) do { \
    f[0] = k * (0 - 2 * y[0] + y[1]) + r * y[0] * (1 - y[0]); \
    for (int i = 1; i < N - 1; i++) f[i] = k * (y[i - 1] - 2 * y[i] + y[i + 1]) + r * y[i] * (1 - y[i]); \
    f[N - 1] = k * (y[N - 2] - 2 * y[N - 1] + 0) + r * y[N - 1] * (1 - y[N - 1]); } while (0)
  for (long n = 0; n < steps; n++) {
    RATE(k1, u);
    for (int i = 0; i < N; i++) p[i] = u[i] + h / 2 * k1[i];
    RATE(k2, p);
    for (int i = 0; i < N; i++) p[i] = u[i] + h / 2 * k2[i];
    RATE(k3, p);
    for (int i = 0; i < N; i++) p[i] = u[i] + h * k3[i];
    RATE(k4, p);
    for (int i = 0; i < N; i++) u[i] = u[i] + h / 6 * (k1[i] + 2 * k2[i] + 2 * k3[i] + k4[i]);
  }
  clock_gettime(CLOCK_MONOTONIC, &t1);
  printf("{\"seconds\": %.9f, \"values\": [%.17g, %.17g]}\n", (t1.tv_sec - t0.tv_sec) + 1e-9 * (t1.tv_nsec - t0.tv_nsec), u[0], u[N - 1]);
  return 0;
}
