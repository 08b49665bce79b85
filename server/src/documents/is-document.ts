import { type DocumentError, readDocument } from '@schritt/core/document';
import { registerDecorator, type ValidationArguments } from 'class-validator';

/** Faults of a document as lines `place: message`. */
function lines(errors: readonly DocumentError[]): string {
  return errors.map((error) => `${error.place}: ${error.message}`).join('\n');
}

/** Holds where the value is a document of the open file format; the message lists every fault with its place. */
export function IsDocument(): PropertyDecorator {
  return (target, propertyName) => {
    registerDecorator({
      name: 'isDocument',
      target: target.constructor,
      propertyName: String(propertyName),
      validator: {
        validate: (value: unknown) => readDocument(value).ok,
        defaultMessage: (given?: ValidationArguments) => {
          const value: unknown = given?.value;
          const reading = readDocument(value);
          return reading.ok ? '' : lines(reading.errors);
        },
      },
    });
  };
}
