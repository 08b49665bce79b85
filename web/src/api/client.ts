import { type Document, readDocument } from '@schritt/core/document';

/** A stored document as the server answers it. */
export interface Entry<D extends Document = Document> {
  readonly id: string;
  readonly version: number;
  readonly updatedAt: string;
  readonly document: D;
}

export type Kind = Document['kind'];

/** Documents by kind. */
export type DocumentOf<K extends Kind> = Extract<Document, { readonly kind: K }>;

const PATHS: Readonly<Record<Kind, string>> = { study: 'studies', problem: 'problems', method: 'methods' };

/** An error of the server, or of the way to it. */
export class ApiFailure extends Error {
  readonly code: string;
  /** With a stale version: what the server answered as the present entry. */
  readonly current: unknown;
  constructor(code: string, message: string, current?: unknown) {
    super(message);
    this.code = code;
    this.current = current;
  }
}

export function field(value: unknown, name: string): unknown {
  return typeof value === 'object' && value !== null
    ? new Map<string, unknown>(Object.entries(value)).get(name)
    : undefined;
}

export function text(value: unknown, otherwise: string): string {
  return typeof value === 'string' ? value : otherwise;
}

function isOfKind<K extends Kind>(document: Document, kind: K): document is DocumentOf<K> {
  return document.kind === kind;
}

/** Reads an entry out of an answer; an answer that is none is an error, not a broken page. */
export function readEntry<K extends Kind>(value: unknown, kind: K): Entry<DocumentOf<K>> {
  const reading = readDocument(field(value, 'document'));
  const version = field(value, 'version');
  if (!reading.ok || !isOfKind(reading.document, kind) || typeof version !== 'number')
    throw new ApiFailure('unreadable', 'the server answered something that cannot be read');
  return {
    id: text(field(value, 'id'), ''),
    version,
    updatedAt: text(field(value, 'updatedAt'), ''),
    document: reading.document,
  };
}

/** Asks the server; an error of it becomes an ApiFailure. */
export async function call(path: string, init: RequestInit = {}): Promise<unknown> {
  let response: Response;
  try {
    response = await fetch(`/api/${path}`, { ...init, headers: { 'content-type': 'application/json' } });
  } catch {
    throw new ApiFailure('unreachable', 'the server does not answer');
  }
  const body: unknown = response.status === 204 ? null : await response.json().catch(() => null);
  if (response.ok) return body;
  throw new ApiFailure(
    text(field(body, 'code'), 'internal'),
    text(field(body, 'message'), `the server answered ${response.status}`),
    field(body, 'current'),
  );
}

/** All entries of a kind. */
export async function listEntries<K extends Kind>(kind: K): Promise<readonly Entry<DocumentOf<K>>[]> {
  const body = await call(PATHS[kind]);
  return Array.isArray(body) ? body.map((item: unknown) => readEntry(item, kind)) : [];
}

export async function loadEntry<K extends Kind>(kind: K, id: string): Promise<Entry<DocumentOf<K>>> {
  return readEntry(await call(`${PATHS[kind]}/${encodeURIComponent(id)}`), kind);
}

export async function createEntry<K extends Kind>(
  kind: K,
  document: DocumentOf<K>,
): Promise<Entry<DocumentOf<K>>> {
  return readEntry(await call(PATHS[kind], { method: 'POST', body: JSON.stringify({ document }) }), kind);
}

export async function replaceEntry<K extends Kind>(
  kind: K,
  id: string,
  version: number,
  document: DocumentOf<K>,
): Promise<Entry<DocumentOf<K>>> {
  const body = JSON.stringify({ version, document });
  // keepalive lets a save that is under way outlive the page; browsers allow it for small bodies only
  const init = { method: 'PUT', body, keepalive: body.length < 60_000 };
  return readEntry(await call(`${PATHS[kind]}/${encodeURIComponent(id)}`, init), kind);
}

export async function deleteEntry(kind: Kind, id: string): Promise<void> {
  await call(`${PATHS[kind]}/${encodeURIComponent(id)}`, { method: 'DELETE' });
}
