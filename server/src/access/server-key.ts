import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** The key of a data folder: the chosen one, or one that is generated once and stored there for its owner alone. */
export function serverKey(folder: string, chosen: string | null): string {
  if (chosen !== null) return chosen;
  const file = join(folder, 'key');
  if (existsSync(file)) return readFileSync(file, 'utf8').trim();
  const generated = randomBytes(24).toString('base64url');
  writeFileSync(file, `${generated}\n`, { mode: 0o600 });
  return generated;
}
