import {
  IsIn,
  IsString,
  MaxLength,
  registerDecorator,
  ValidateIf,
  ValidateNested,
  type ValidationArguments,
} from 'class-validator';
import { JSONSchema } from 'class-validator-jsonschema';
import { Type } from 'class-transformer';

/** Decorates a field of a class. */
type FieldDecorator = (target: object, key: string) => void;

/** Several decorators as one; the first fault of a field is that of the first of them. */
function all(...decorators: readonly FieldDecorator[]): FieldDecorator {
  return (target, key) => {
    for (const decorate of decorators) decorate(target, key);
  };
}

/** A string of at most so many characters. */
export function TextField(max: number, description?: string): FieldDecorator {
  return all(
    IsString({ message: 'must be a string' }),
    MaxLength(max, {
      message: ({ value }) =>
        `has ${typeof value === 'string' ? value.length : 0} characters; at most ${max} are allowed`,
    }),
    JSONSchema(description === undefined ? {} : { description }),
  );
}

/** One of some words. */
export function OneOf(choices: readonly string[]): FieldDecorator {
  const quoted = choices.map((choice) => `"${choice}"`).join(', ');
  return all(
    IsIn(choices, { message: `must be one of ${quoted}` }),
    JSONSchema({ type: 'string', enum: [...choices] }),
  );
}

/** A JSON Schema of a value. */
type Schema = Exclude<Parameters<typeof JSONSchema>[0], (...args: never) => unknown>;

/** A rule about a value; it answers what is wrong, or null. */
export interface Rule {
  readonly name: string;
  readonly fault: (value: unknown, object: object) => string | null;
  readonly schema: Schema;
}

/** A value by a rule of its own. */
export function Follows({ name, fault, schema }: Rule): FieldDecorator {
  return all(
    (target, key) =>
      registerDecorator({
        name,
        target: target.constructor,
        propertyName: key,
        validator: {
          validate: (value: unknown, { object }: ValidationArguments) => fault(value, object) === null,
          defaultMessage: ({ value, object }: ValidationArguments) => fault(value, object) ?? '',
        },
      }),
    JSONSchema(() => schema),
  );
}

/** A list of at most so many values, each by a rule. */
export function ListOf(rule: Rule, max: number): FieldDecorator {
  const fault = (value: unknown, object: object): string | null => {
    if (!Array.isArray(value)) return 'must be a list';
    if (value.length > max) return `has ${value.length} entries; at most ${max} are allowed`;
    const place = value.findIndex((one: unknown) => rule.fault(one, object) !== null);
    return place < 0 ? null : `entry ${place} ${rule.fault(value[place], object) ?? ''}`;
  };
  return Follows({
    name: `listOf${rule.name}`,
    fault,
    schema: { type: 'array', maxItems: max, items: { ...rule.schema } },
  });
}

/** Where a JSON Schema keeps named parts. */
export const DEFINITIONS = '#/definitions/';

/** A reference to the schema of a class. */
export function referenceTo({ name }: new () => object): { readonly $ref: string } {
  return { $ref: DEFINITIONS + name };
}

/** Whether a value is an object and no list. */
export function isObject(value: unknown): value is object {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** That a value is an object and no list. */
function objectRule(expected: string): Rule {
  return { name: 'object', fault: (value) => (isObject(value) ? null : `must be ${expected}`), schema: {} };
}

/** A field that a file may leave out; null is a value like any other. */
export function Optional(): FieldDecorator {
  return (target, key) =>
    ValidateIf((object: object) =>
      Object.entries(object).some(([own, value]) => own === key && value !== undefined),
    )(target, key);
}

/**
 * An object that is checked by its own class, and is one: a validator passes over what is missing, null or a list.
 *
 * @param expected what it must be, as a sentence
 */
export function Nested(schema: () => Schema, expected = 'an object'): FieldDecorator {
  return all(Follows(objectRule(expected)), ValidateNested(), JSONSchema(schema));
}

/** An object of a class. */
export function ObjectOf(type: () => new () => object): FieldDecorator {
  return all(
    Nested(() => referenceTo(type())),
    Type(type),
  );
}

/** A list of at most so many objects of a class. */
export function ObjectsOf(type: () => new () => object, max: number): FieldDecorator {
  return all(
    ListOf(objectRule('an object'), max),
    ValidateNested({ each: true }),
    Type(type),
    JSONSchema(() => ({ type: 'array', maxItems: max, items: referenceTo(type()) })),
  );
}

/** A finite number of a kind; `wanted` says which. */
export function numberRule(is: (x: number) => boolean, expected: string, schema: Rule['schema']): Rule {
  return {
    name: 'number',
    fault: (value) =>
      typeof value === 'number' && Number.isFinite(value) && is(value) ? null : `must be ${expected}`,
    schema,
  };
}
