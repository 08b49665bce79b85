/** Who may reach the server, and under which names. */
export interface AccessOptions {
  /** The address that the server listens at. */
  readonly host: string;
  /** Further host names under which it may be requested. */
  readonly names: readonly string[];
  /** The key that opens a session; null where everyone who reaches the server may read and write. */
  readonly key: string | null;
  /** The key with which figures are collected; null where only sessions may. */
  readonly metricsKey: string | null;
  /** Proxies before this server that say where a request comes from, and whether it came by HTTPS. */
  readonly proxies: number;
}

export const ACCESS_OPTIONS = Symbol('access options');
