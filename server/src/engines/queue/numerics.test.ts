import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { remarkOn } from '../../worker/worker.ts';
import { entryId, entryOf, placeOf } from './queue-data.ts';
import { numericsDigest } from './numerics.ts';
import { NUMERICS } from './queue-name.ts';

test('the digest of numbers is the same in another process, and another one where a digit differs', () => {
  const file = join(process.cwd(), 'server/dist/engines/queue/numerics.js');
  const digestOf = (before: string): string =>
    execFileSync(
      process.execPath,
      [
        '--input-type=module',
        '-e',
        `${before}; const { numericsDigest } = await import(${JSON.stringify(file)}); process.stdout.write(numericsDigest())`,
      ],
      { encoding: 'utf8' },
    );
  expect(numericsDigest()).toMatch(/^[0-9a-f]{12}$/);
  expect(digestOf('')).toBe(numericsDigest());
  // a machine whose square roots are off by one in the last place
  const wrong = 'const root = Math.sqrt; Math.sqrt = (x) => root(x) * (1 + 2 ** -52)';
  expect(digestOf(wrong)).not.toBe(numericsDigest());
});

test('a worker says who is at the queue, and why it takes nothing', () => {
  const own = `${NUMERICS} board 12`;
  expect(remarkOn(null)).toMatch(/^The queue cannot be reached/);
  expect(remarkOn({ servers: [], workers: [] })).toBe('No server is at this queue yet.');
  expect(remarkOn({ servers: [own], workers: [] })).toBeNull();
  expect(remarkOn({ servers: ['3-abc hall 4', own], workers: [] })).toBeNull();
  expect(remarkOn({ servers: ['3-abc hall 4', '3-abc hall 9'], workers: [] })).toBe(
    `This worker takes nothing: its numbers are of version ${NUMERICS}, those of the server of version 3-abc. Install the version of the server, on a machine that rounds as it does.`,
  );
});

test('the name of an entry says which job and which task it is', () => {
  expect(entryOf(entryId('7f3a-11', '2.10'))).toEqual({ whole: '7f3a-11', key: '2.10' });
  expect(entryOf('7f3a-11')).toEqual({ whole: '7f3a-11', key: null });
  expect(placeOf('schritt:tasks-4-ab:7f3a-11.2.10')).toBe(10);
});
