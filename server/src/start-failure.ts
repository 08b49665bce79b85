/** Why the server cannot start, as a sentence for the person who started it. */
export class StartFailure extends Error {
  override readonly name = 'StartFailure';
}

/** The code of an error of the system or of the store, such as EADDRINUSE; null for one that has none. */
export function codeOf(thrown: unknown): string | null {
  if (typeof thrown !== 'object' || thrown === null || !('code' in thrown)) return null;
  return typeof thrown.code === 'string' ? thrown.code : null;
}

/** The sentence for what went wrong while the server started; null for what is a fault of the program. */
export function startSentence(
  thrown: unknown,
  where: { readonly data: string; readonly port: number },
): string | null {
  if (thrown instanceof StartFailure) return thrown.message;
  switch (codeOf(thrown)) {
    case 'EADDRINUSE':
      return `port ${where.port} is in use; end what uses it, or choose another: SCHRITT_PORT=4601 npm start`;
    case 'EADDRNOTAVAIL':
      return 'SCHRITT_HOST is not an address of this machine';
    case 'EACCES':
    case 'EPERM':
    case 'EROFS':
    case 'SQLITE_READONLY':
    case 'SQLITE_READONLY_DIRECTORY':
    case 'SQLITE_CANTOPEN':
      return `the folder ${where.data} cannot be written; make it writable, or choose another with SCHRITT_DATA`;
    case 'ENOTDIR':
    case 'EEXIST':
    case 'ENOENT':
    case 'ENAMETOOLONG':
      return `the folder ${where.data} cannot be made; choose another with SCHRITT_DATA`;
    case 'ENOSPC':
    case 'SQLITE_FULL':
      return `the disk of ${where.data} is full; free some space and start again`;
    case 'SQLITE_CORRUPT':
    case 'SQLITE_NOTADB':
    case 'SQLITE_IOERR_SHORT_READ':
      return `the data in ${where.data} are damaged; restore a copy with: npm run schritt -- restore FILE`;
    default:
      return null;
  }
}
