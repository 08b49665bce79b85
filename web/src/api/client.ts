import type { SchrittDocument } from '@schritt/core/document';
import createClient from 'openapi-fetch';
import type { components, paths } from './schema.ts';

type Schemas = components['schemas'];

/** An entry of a list, without its document. */
export type EntryRow = Schemas['EntryRowDto'];

/** A part of a list, and how many total number of entries. */
export type EntryRows = Schemas['EntryListDto'];

/** A stored document as the server answers it. */
export interface Entry<D extends SchrittDocument = SchrittDocument> extends Omit<
  Schemas['EntryDto'],
  'document' | 'kind' | 'shownAt'
> {
  /** The end of the link at which it is shown; null where it is not shown. */
  readonly shownAt: string | null;
  readonly document: D;
}

export type Kind = SchrittDocument['kind'];

/** Documents by kind. */
export type DocumentOf<K extends Kind> = Extract<SchrittDocument, { readonly kind: K }>;

/** An error of the server, or of the way to it. */
export class ApiFailure extends Error {
  readonly code: Schemas['ApiErrorBody']['code'] | 'unreachable' | 'unreadable';
  /** With a stale version: what the server answered as the present entry. */
  readonly current: unknown;
  constructor(code: ApiFailure['code'], message: string, current?: unknown) {
    super(message);
    this.code = code;
    this.current = current;
  }
}

/** The server, with the types that its own description gives. */
export const server = createClient<paths>({ baseUrl: '/' });

/** What a call to the server has come to. */
interface Called<T> {
  readonly data?: T;
  readonly error?: unknown;
  readonly response: Response;
}

function isErrorBody(value: unknown): value is Schemas['ApiErrorBody'] {
  return typeof value === 'object' && value !== null && 'code' in value && 'message' in value;
}

/** The data of a call; an error of the server, or of the way to it, becomes an ApiFailure. */
export async function answerOf<T>(call: Promise<Called<T>>): Promise<T | undefined> {
  const { data, error, response } = await call.catch(() => {
    throw new ApiFailure('unreachable', 'the server does not respond');
  });
  if (response.ok) return data;
  if (isErrorBody(error)) throw new ApiFailure(error.code, error.message, error.current);
  throw new ApiFailure('internal', `the server answered ${response.status}`);
}

/** Whether a document of the server is of a kind; the server has read all of it before it answered. */
function isOfKind<K extends Kind>(document: unknown, kind: K): document is DocumentOf<K> {
  return typeof document === 'object' && document !== null && 'kind' in document && document.kind === kind;
}

function isEntry(value: unknown): value is Schemas['EntryDto'] {
  return typeof value === 'object' && value !== null && 'document' in value && 'version' in value;
}

/** Reads an entry out of an answer; an answer that is none is an error, not a broken page. */
export function readEntry<K extends Kind>(value: unknown, kind: K): Entry<DocumentOf<K>> {
  if (isEntry(value)) {
    const { id, version, updatedAt, shownAt } = value;
    const document: unknown = value.document;
    if (isOfKind(document, kind) && typeof version === 'number')
      return { id, version, updatedAt, shownAt: shownAt ?? null, document };
  }
  throw new ApiFailure('unreadable', 'the response of the server cannot be read');
}

const ALL = { study: '/api/studies', problem: '/api/problems', method: '/api/methods' } as const;
const RESTORED = {
  study: '/api/studies/{id}/restored',
  problem: '/api/problems/{id}/restored',
  method: '/api/methods/{id}/restored',
} as const;
const PERMANENTLY = {
  study: '/api/studies/{id}/permanently',
  problem: '/api/problems/{id}/permanently',
  method: '/api/methods/{id}/permanently',
} as const;
const ONE = {
  study: '/api/studies/{id}',
  problem: '/api/problems/{id}',
  method: '/api/methods/{id}',
} as const;

function allOf(kind: Kind): (typeof ALL)[Kind] {
  return ALL[kind];
}

function oneOf(kind: Kind): (typeof ONE)[Kind] {
  return ONE[kind];
}

function restoredOf(kind: Kind): (typeof RESTORED)[Kind] {
  return RESTORED[kind];
}

function permanentlyOf(kind: Kind): (typeof PERMANENTLY)[Kind] {
  return PERMANENTLY[kind];
}

function areRows(value: unknown): value is EntryRows {
  return typeof value === 'object' && value !== null && 'entries' in value && Array.isArray(value.entries);
}

/** Entries of a part of a list. */
export const LISTED = 100;

/** Where a list is: what one works with, or what was put away. */
export type Collection = 'list' | 'bin';

/** A part of the list of a kind, from an entry on. */
export async function listEntries(kind: Kind, collection: Collection, from: number): Promise<EntryRows> {
  const query = { from, count: LISTED, bin: collection === 'bin' };
  const body: unknown = await answerOf(server.GET(allOf(kind), { params: { query } }));
  if (areRows(body)) return body;
  throw new ApiFailure('unreadable', 'the response of the server cannot be read');
}

/** What is stored of an entry, character for character, also where it cannot be read as a document. */
export async function storedText(kind: Kind, id: string): Promise<string> {
  const path = `${allOf(kind)}/${encodeURIComponent(id)}/file`;
  const response = await fetch(path).catch(() => {
    throw new ApiFailure('unreachable', 'the server does not respond');
  });
  if (!response.ok) throw new ApiFailure('internal', `the server answered ${response.status}`);
  return response.text();
}

/** Shows a study to anyone with the link whose end is answered. */
export async function showStudy(id: string): Promise<string> {
  const body = await answerOf(server.POST('/api/studies/{id}/shown', { params: { path: { id } } }));
  return body?.shownAt ?? '';
}

export async function hideStudy(id: string): Promise<void> {
  await answerOf(server.DELETE('/api/studies/{id}/shown', { params: { path: { id } } }));
}

/** The study behind a link. */
export async function loadShown(at: string): Promise<DocumentOf<'study'>> {
  const body = await answerOf(server.GET('/api/shown/{at}', { params: { path: { at } } }));
  const document: unknown = body?.document;
  if (isOfKind(document, 'study')) return document;
  throw new ApiFailure('unreadable', 'the response of the server cannot be read');
}

/** Logs this browser in with the key of the link that the server printed. */
export async function login(key: string): Promise<void> {
  await answerOf(server.POST('/api/access', { body: { key } }));
}

/** What this browser may do, and whether it can log out. */
export async function loadAccess(): Promise<Schemas['AccessDto']> {
  return (await answerOf(server.GET('/api/access'))) ?? { mayWrite: false, hasKey: true };
}

/** Logs this browser out, or all browsers that have logged in. */
export async function logout(which: 'this browser' | 'all browsers'): Promise<void> {
  await answerOf(which === 'this browser' ? server.DELETE('/api/access') : server.DELETE('/api/access/all'));
}

export async function loadEntry<K extends Kind>(kind: K, id: string): Promise<Entry<DocumentOf<K>>> {
  return readEntry(await answerOf(server.GET(oneOf(kind), { params: { path: { id } } })), kind);
}

export async function createEntry<K extends Kind>(
  kind: K,
  document: DocumentOf<K>,
): Promise<Entry<DocumentOf<K>>> {
  return readEntry(await answerOf(server.POST(allOf(kind), { body: { document } })), kind);
}

/** Longest body that a browser sends on when its page is gone. */
const MAX_KEPT_ALIVE = 60_000;

export async function replaceEntry<K extends Kind>(
  kind: K,
  id: string,
  version: number,
  document: DocumentOf<K>,
): Promise<Entry<DocumentOf<K>>> {
  const body = { version, document };
  // keepalive lets a save that is under way outlive the page; browsers allow it for small bodies only
  const keepalive = JSON.stringify(body).length < MAX_KEPT_ALIVE;
  return readEntry(
    await answerOf(server.PUT(oneOf(kind), { params: { path: { id } }, body, keepalive })),
    kind,
  );
}

/** Takes an entry out of the bin. */
export async function restoreEntry(kind: Kind, id: string): Promise<void> {
  await answerOf(server.POST(restoredOf(kind), { params: { path: { id } } }));
}

/** Moves an entry to the bin; one that is there already stays there. */
export async function deleteEntry(kind: Kind, id: string): Promise<void> {
  await answerOf(server.DELETE(oneOf(kind), { params: { path: { id } } }));
}

/** Deletes an entry of the bin permanently. */
export async function deletePermanently(kind: Kind, id: string): Promise<void> {
  await answerOf(server.DELETE(permanentlyOf(kind), { params: { path: { id } } }));
}
