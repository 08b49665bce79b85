/** What is wrong with a value, at a place such as `methods[1].text`. */
export interface ValueFault {
  readonly place: string;
  readonly message: string;
}

/** A JSON Schema, or a part of one. */
export type JsonSchema = Readonly<Record<string, unknown>>;

/** Takes the schema of a part that has a name, so that it stands once. */
export type Define = (name: string, schema: JsonSchema) => void;

/** Collects faults with their places. */
export class Faults {
  readonly list: ValueFault[] = [];

  note(place: string, message: string): null {
    this.list.push({ place: place === '' ? 'the file' : place, message });
    return null;
  }
}

/**
 * The one definition of what a value of a file may be: its type, its reader and its JSON Schema.
 *
 * @example const POINT = object({ x: number(() => true, 'a number', { type: 'number' }) }); type Point = Of<typeof POINT>;
 */
export interface Form<T> {
  /** The value as it should be; null where it is not, with every fault noted. */
  readonly read: (value: unknown, place: string, faults: Faults) => T | null;
  readonly schema: (define: Define) => JsonSchema;
}

/** The type of what a form reads. */
export type Of<F> = F extends Form<infer T> ? T : never;

type Fields = Readonly<Record<string, Form<unknown>>>;

type NeededOf<N extends Fields> = { readonly [K in keyof N]: Of<N[K]> };

type ObjectOf<N extends Fields, O extends Fields> = NeededOf<N> & { readonly [K in keyof O]?: Of<O[K]> };

export function join(place: string, key: string): string {
  return place === '' ? key : `${place}.${key}`;
}

/** A text in quotes of at most so many characters. */
export function text(longest: number, more: JsonSchema = {}): Form<string> {
  return {
    read: (value, place, faults) => {
      if (typeof value !== 'string') return faults.note(place, 'must be a text in quotes');
      if (value.length <= longest) return value;
      return faults.note(place, `has ${value.length} characters; at most ${longest} are possible`);
    },
    schema: () => ({ type: 'string', maxLength: longest, ...more }),
  };
}

/** A finite number of a kind; `wanted` says which. */
export function number(is: (x: number) => boolean, wanted: string, schema: JsonSchema): Form<number> {
  return {
    read: (value, place, faults) =>
      typeof value === 'number' && Number.isFinite(value) && is(value)
        ? value
        : faults.note(place, `must be ${wanted}`),
    schema: () => schema,
  };
}

/** One of some words. */
export function oneOf<T extends string>(...choices: readonly T[]): Form<T> {
  return {
    read: (value, place, faults) =>
      choices.find((choice) => choice === value) ??
      faults.note(place, `must be one of ${choices.map((c) => `"${c}"`).join(', ')}`),
    schema: () => ({ enum: choices }),
  };
}

/** One value and no other. */
export function constant<T extends string | number>(only: T): Form<T> {
  return {
    read: (value, place, faults) =>
      value === only ? only : faults.note(place, `must be ${JSON.stringify(only)}`),
    schema: () => ({ const: only }),
  };
}

/** A list of at most so many entries. */
export function list<T>(item: Form<T>, most: number): Form<readonly T[]> {
  return {
    read: (value, place, faults) => {
      if (!Array.isArray(value)) return faults.note(place, 'must be a list');
      if (value.length > most)
        return faults.note(place, `has ${value.length} entries; at most ${most} are possible`);
      const read = value.map((one: unknown, i) => item.read(one, `${place}[${i}]`, faults));
      const whole = read.filter((one) => one !== null);
      return whole.length === read.length ? whole : null;
    },
    schema: (define) => ({ type: 'array', maxItems: most, items: item.schema(define) }),
  };
}

/** Every field has been read by its own form without a fault, and none that is needed is missing. */
function isWhole<T>(value: object, needed: readonly string[], isFaultless: boolean): value is T & object {
  return isFaultless && needed.every((key) => Object.hasOwn(value, key));
}

/**
 * An object with fields that it must have and fields that it may have; any other field is a fault.
 *
 * @param more a look at the whole object, when its fields are good
 */
export function object<N extends Fields>(needed: N): Form<NeededOf<N>>;
export function object<N extends Fields, O extends Fields>(
  needed: N,
  optional: O,
  more?: (value: ObjectOf<N, O>, place: string, faults: Faults) => void,
): Form<ObjectOf<N, O>>;
export function object<N extends Fields, O extends Fields>(
  needed: N,
  optional?: O,
  more: (value: ObjectOf<N, O>, place: string, faults: Faults) => void = () => undefined,
): Form<ObjectOf<N, O>> {
  const forms = new Map<string, Form<unknown>>([
    ...Object.entries(needed),
    ...Object.entries(optional ?? {}),
  ]);
  const names = [...forms.keys()];
  const must = Object.keys(needed);
  return {
    read: (value, place, faults) => {
      if (typeof value !== 'object' || value === null || Array.isArray(value))
        return faults.note(place, `must be an object with ${(must.length > 0 ? must : names).join(', ')}`);
      const before = faults.list.length;
      const entries = new Map<string, unknown>(Object.entries(value));
      for (const key of entries.keys())
        if (!forms.has(key))
          faults.note(
            join(place, key),
            `is not a field of this format; the fields here are ${names.join(', ')}`,
          );
      for (const key of must) if (entries.get(key) === undefined) faults.note(join(place, key), 'is missing');
      const read = names.flatMap((key): [string, unknown][] => {
        const own = entries.get(key);
        return own === undefined ? [] : [[key, forms.get(key)?.read(own, join(place, key), faults)]];
      });
      const made = Object.fromEntries(read);
      if (!isWhole<ObjectOf<N, O>>(made, must, faults.list.length === before)) return null;
      more(made, place, faults);
      return faults.list.length === before ? made : null;
    },
    schema: (define) => ({
      type: 'object',
      additionalProperties: false,
      ...(must.length > 0 ? { required: must } : {}),
      properties: Object.fromEntries([...forms].map(([key, form]) => [key, form.schema(define)])),
    }),
  };
}

/** One of several forms: `pick` tells by the value which of them it is to be read by. */
export function either<T>(pick: (value: unknown) => Form<T>, ...forms: readonly Form<T>[]): Form<T> {
  return {
    read: (value, place, faults) => pick(value).read(value, place, faults),
    schema: (define) => ({ oneOf: forms.map((form) => form.schema(define)) }),
  };
}

/** A form whose values are read into others, such as an older way to write the same. */
export function converted<A, B>(form: Form<A>, into: (value: A) => B): Form<B> {
  return {
    read: (value, place, faults) => {
      const read = form.read(value, place, faults);
      return read === null ? null : into(read);
    },
    schema: form.schema,
  };
}

/** A form with a name, under which its schema stands once. */
export function named<T>(name: string, form: Form<T>): Form<T> {
  return {
    read: form.read,
    schema: (define) => {
      define(name, form.schema(define));
      return { $ref: `#/definitions/${name}` };
    },
  };
}

/** Whether a value is an object that has a field. */
export function hasField(value: unknown, key: string): boolean {
  return typeof value === 'object' && value !== null && Object.hasOwn(value, key);
}
