import { answerOf, server } from './client.ts';

/** The errors of one method of a study, over its step sizes. */
export type ErrorsOfMethod = readonly { readonly h: number; readonly error: number }[];

function isRecord(value: unknown): value is Readonly<Record<string, unknown>> {
  return typeof value === 'object' && value !== null;
}

function listOf(value: unknown, field: string): readonly unknown[] {
  const list = isRecord(value) ? value[field] : null;
  return Array.isArray(list) ? list : [];
}

/** The errors that a report of a study tells; rungs without a number are passed over. */
export function errorsOf(report: unknown): readonly ErrorsOfMethod[] {
  return listOf(report, 'methods').map((method) =>
    listOf(method, 'rungs').flatMap((rung) => {
      const { h, error } = isRecord(rung) ? rung : {};
      return typeof h === 'number' && typeof error === 'number' ? [{ h, error }] : [];
    }),
  );
}

let last: Promise<unknown> = Promise.resolve();

/** The errors of a stored study, one study after another: a list asks for many. */
export function loadErrors(id: string): Promise<readonly ErrorsOfMethod[]> {
  const asked = last.then(async () =>
    errorsOf(await answerOf(server.GET('/api/studies/{id}/report', { params: { path: { id } } }))),
  );
  last = asked.catch(() => undefined);
  return asked;
}
