import type { DocumentError } from './document.ts';

/** Walks a value read from JSON and notes what is not as it should be, with the place of each. */
export class ValueCheck {
  readonly errors: DocumentError[] = [];

  note(place: string, message: string): void {
    this.errors.push({ place: place === '' ? 'the file' : place, message });
  }

  /** The fields of an object; fields that are not known are refused, missing ones too. */
  fields(
    value: unknown,
    place: string,
    needed: readonly string[],
    optional: readonly string[] = [],
  ): ReadonlyMap<string, unknown> | null {
    if (typeof value !== 'object' || value === null || Array.isArray(value)) {
      this.note(place, `must be an object with ${needed.join(', ')}`);
      return null;
    }
    const entries = new Map<string, unknown>(Object.entries(value));
    for (const key of entries.keys())
      if (!needed.includes(key) && !optional.includes(key))
        this.note(
          join(place, key),
          `is not a field of this format; the fields here are ${[...needed, ...optional].join(', ')}`,
        );
    for (const key of needed) if (!entries.has(key)) this.note(join(place, key), 'is missing');
    return entries;
  }

  text(value: unknown, place: string, longest: number): string {
    if (value === undefined) return '';
    if (typeof value !== 'string') this.note(place, 'must be a text in quotes');
    else if (value.length > longest)
      this.note(place, `has ${value.length} characters; at most ${longest} are possible`);
    else return value;
    return '';
  }

  list<T>(
    value: unknown,
    place: string,
    most: number,
    each: (item: unknown, place: string) => T,
  ): readonly T[] {
    if (value === undefined) return [];
    if (!Array.isArray(value)) {
      this.note(place, 'must be a list');
      return [];
    }
    if (value.length > most) {
      this.note(place, `has ${value.length} entries; at most ${most} are possible`);
      return [];
    }
    return value.map((item: unknown, i) => each(item, `${place}[${i}]`));
  }

  number(value: unknown, place: string, is: (x: number) => boolean, wanted: string): number {
    if (value === undefined) return NaN;
    if (typeof value === 'number' && Number.isFinite(value) && is(value)) return value;
    this.note(place, `must be ${wanted}`);
    return NaN;
  }

  oneOf<T extends string>(value: unknown, place: string, choices: readonly T[]): T | undefined {
    const found = choices.find((choice) => choice === value);
    if (found === undefined) this.note(place, `must be one of ${choices.map((c) => `"${c}"`).join(', ')}`);
    return found;
  }
}

export function join(place: string, key: string): string {
  return place === '' ? key : `${place}.${key}`;
}
