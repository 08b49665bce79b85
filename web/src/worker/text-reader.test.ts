import type { Reading } from '@schritt/core/notation';
import { TextReader } from './text-reader.ts';

const SHORT = "y' = -y";
const LONG = `# ${'a long remark '.repeat(200)}\ny' = -y`;
const FAMILY = "u[i]' = -u[i] for i = 1..20000";

interface Asked {
  readonly text: string;
  readonly answer: (reading: Reading<string>) => void;
  readonly fail: (why: Error) => void;
}

/** A reader whose worker answers when the test lets it. */
function reader(): {
  readonly texts: TextReader<string>;
  readonly asked: Asked[];
  readonly parsed: string[];
} {
  const asked: Asked[] = [];
  const parsed: string[] = [];
  const texts = new TextReader<string>(
    (text) => {
      parsed.push(text);
      return { ok: true, value: `at once: ${text}` };
    },
    (_, text) => new Promise((answer, fail) => asked.push({ text, answer, fail })),
  );
  return { texts, asked, parsed };
}

const settled = (): Promise<void> => new Promise((done) => setTimeout(done, 0));

test('a short text is read at once, and once', () => {
  const { texts, parsed } = reader();
  expect(texts.read(SHORT)).toEqual({ ok: true, value: `at once: ${SHORT}` });
  expect(texts.read(SHORT)).toBe(texts.read(SHORT));
  expect(parsed).toEqual([SHORT]);
});

test.each([
  ['a long text', LONG],
  ['a family, which may have many elements', FAMILY],
])('%s is read by the worker, and the page is notified', async (_, text) => {
  const { texts, asked, parsed } = reader();
  const told = jest.fn();
  texts.watch(told);
  const before = texts.now();
  expect(texts.read(text)).toBeNull();
  expect(texts.read(text)).toBeNull();
  await settled();
  expect(asked.map((one) => one.text)).toEqual([text]);
  asked[0]!.answer({ ok: true, value: 'by the worker' });
  await settled();
  expect(told).toHaveBeenCalledTimes(1);
  expect(texts.now()).not.toBe(before);
  expect(texts.now().read(text)).toEqual({ ok: true, value: 'by the worker' });
  expect(parsed).toEqual([]);
});

test('texts are read one after another, and one that fails has an error that says why', async () => {
  const { texts, asked } = reader();
  const first = texts.whenRead(LONG);
  const second = texts.whenRead(FAMILY);
  await settled();
  expect(asked).toHaveLength(1);
  asked[0]!.fail(new Error('it took longer than 60 seconds and was stopped'));
  expect(await first).toMatchObject({
    ok: false,
    errors: [
      { line: 1, message: 'this text could not be read: it took longer than 60 seconds and was stopped' },
    ],
  });
  await settled();
  asked[1]!.answer({ ok: true, value: 'u' });
  expect(await second).toEqual({ ok: true, value: 'u' });
  expect(await texts.whenRead(FAMILY)).toEqual({ ok: true, value: 'u' });
});
