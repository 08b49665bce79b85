/** Who may reach the server, and under which names. */
export interface AccessOptions {
  /** The address that the server listens at. */
  readonly host: string;
  /** Further host names under which it may be requested. */
  readonly names: readonly string[];
  /** The key that opens a session; null where everyone who reaches the server may read and write. */
  readonly key: string | null;
}

export const ACCESS_OPTIONS = Symbol('access options');
