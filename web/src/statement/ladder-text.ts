import { attempt, Refusal } from '@schritt/core/text';
import { type Amount, amountValue, type Ladder, MAX_RUNGS } from '@schritt/core/study';

/** How step sizes are typed: the first h with a ratio, or a list of h or N. */
export type LadderEntry = 'regular' | 'sizes' | 'counts';

export function formOf(ladder: Ladder): LadderEntry {
  return 'first' in ladder ? 'regular' : 'sizes' in ladder ? 'sizes' : 'counts';
}

export function ladderText(ladder: Ladder): string {
  if ('first' in ladder) return `${ladder.first}, ${ladder.factor}, ${ladder.rungs}`;
  return ('sizes' in ladder ? ladder.sizes : ladder.counts).join(', ');
}

function amount(text: string): Amount {
  const value = amountValue(text);
  if (!(value > 0) || !Number.isFinite(value)) throw new Refusal('grid', `${text} must be a positive number`);
  return String(Number(text)) === text ? Number(text) : text;
}

function count(text: string): number {
  const value = Number(text);
  if (!Number.isSafeInteger(value) || value < 1)
    throw new Refusal('grid', `${text} must be a positive integer`);
  return value;
}

/**
 * The parts of a typed list: between commas, semicolons and lines, and between spaces where what is there is no formula
 * as a whole.
 */
function partsOf(text: string): readonly string[] {
  return text
    .split(/[,;\n]/)
    .map((part) => part.trim())
    .filter((part) => part !== '')
    .flatMap((part) =>
      /\s/.test(part) && !attempt(() => amountValue(part)).ok ? part.split(/\s+/) : [part],
    );
}

/**
 * Reads typed step sizes.
 *
 * @throws Refusal in plain words
 */
export function readLadder(form: LadderEntry, text: string): Ladder {
  const parts = partsOf(text);
  if (parts.length === 0)
    throw new Refusal('grid', 'enter at least one; separate several by commas or spaces');
  if (parts.length > MAX_RUNGS) throw new Refusal('grid', `at most ${MAX_RUNGS} step sizes are allowed`);
  if (form === 'sizes') return { sizes: parts.map(amount) };
  if (form === 'counts') return { counts: parts.map(count) };
  const [first, factor, rungs] = parts;
  if (first === undefined || factor === undefined || rungs === undefined || parts.length > 3)
    throw new Refusal('grid', 'enter the initial h, the ratio and the number of step sizes: 0.5, 2, 6');
  const by = amountValue(factor);
  if (!(by > 1)) throw new Refusal('grid', 'the ratio must be greater than 1; 2 halves h each time');
  const many = count(rungs);
  if (many > MAX_RUNGS) throw new Refusal('grid', `at most ${MAX_RUNGS} step sizes are allowed`);
  return { first: amount(first), factor: by, rungs: many };
}
