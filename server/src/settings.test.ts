import { isLoopback, readSettings } from './settings.ts';

function faults(environment: NodeJS.ProcessEnv): readonly string[] {
  const reading = readSettings(environment, '/srv');
  return reading.ok ? [] : reading.faults;
}

test('without any setting it serves this machine alone, with its data beside the program', () => {
  expect(readSettings({}, '/srv')).toEqual({
    ok: true,
    settings: {
      data: '/srv/data',
      host: '127.0.0.1',
      port: 4600,
      names: [],
      key: null,
      metricsKey: null,
      proxies: 0,
      queue: null,
      workerThreads: null,
      runMemory: 1024,
      jobSeconds: 900,
      requestSeconds: 10,
      logLevel: 'warn',
    },
  });
});

test.each<[NodeJS.ProcessEnv, string]>([
  [{ SCHRITT_JOB_SECONDS: 'abc' }, 'SCHRITT_JOB_SECONDS is "abc"; it must be an integer from 1 to 86400'],
  [
    { SCHRITT_REQUEST_SECONDS: '601' },
    'SCHRITT_REQUEST_SECONDS is "601"; it must be an integer from 1 to 600',
  ],
  [{ SCHRITT_JOB_SECONDS: '0' }, 'SCHRITT_JOB_SECONDS is "0"'],
  [{ SCHRITT_PORT: '65536' }, 'SCHRITT_PORT is "65536"; it must be an integer from 0 to 65535'],
  [{ SCHRITT_PORT: '1e3' }, 'SCHRITT_PORT is "1e3"'],
  [{ SCHRITT_PORT: '' }, 'SCHRITT_PORT is ""'],
  [{ SCHRITT_DATA: ' ' }, 'SCHRITT_DATA is empty'],
  [{ SCHRITT_HOST: '' }, 'SCHRITT_HOST is empty'],
  [{ SCHRITT_LOG: 'loud' }, 'SCHRITT_LOG is "loud"; it must be silent, warn or info'],
  [{ SCHRITT_KEY: 'short' }, 'SCHRITT_KEY has 5 characters'],
  [{ SCHRITT_KEY: 'abababababababababab' }, '2 of them different'],
  [{ SCHRITT_METRICS_KEY: 'short' }, 'SCHRITT_METRICS_KEY has 5 characters'],
  [{ SCHRITT_PROXIES: '9' }, 'SCHRITT_PROXIES is "9"; it must be an integer from 0 to 5'],
  [{ SCHRITT_QUEUE: 'http://queue.example' }, 'SCHRITT_QUEUE is not the address of a Redis or Valkey server'],
  [{ SCHRITT_QUEUE: 'redis' }, 'write it as redis://127.0.0.1:6379'],
  [{ SCHRITT_WORKER_THREADS: '0' }, 'SCHRITT_WORKER_THREADS is "0"'],
  [{ SCHRITT_RUN_MEMORY: '8' }, 'SCHRITT_RUN_MEMORY is "8"'],
])('%p is refused with a sentence', (environment, sentence) => {
  expect(faults(environment)).toEqual([expect.stringContaining(sentence)]);
});

test('every bad setting has its own sentence', () => {
  expect(faults({ SCHRITT_PORT: 'x', SCHRITT_LOG: 'x', SCHRITT_JOB_SECONDS: '-1' })).toHaveLength(3);
});

test('names are read as a list', () => {
  const reading = readSettings({ SCHRITT_NAMES: 'Hall.example, , board' }, '/srv');
  expect(reading.ok && reading.settings.names).toEqual(['hall.example', 'board']);
});

test.each([
  ['127.0.0.1', true],
  ['127.9.9.9', true],
  ['localhost', true],
  ['::1', true],
  ['0.0.0.0', false],
  ['192.168.0.2', false],
  ['127.evil.example', false],
])('%s is reached from this machine alone: %p', (host, is) => {
  expect(isLoopback(host)).toBe(is);
});
