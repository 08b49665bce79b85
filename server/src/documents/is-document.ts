import { applyDecorators } from '@nestjs/common';
import { documentInstance, headFault } from '@schritt/core/format';
import { Transform } from 'class-transformer';
import { ValidateBy, ValidateNested } from 'class-validator';

/**
 * A document of the open file format: by its kind an instance of the class that describes it, every fault with its
 * place.
 */
export function IsDocument(): PropertyDecorator {
  return applyDecorators(
    Transform(({ value }: { readonly value: unknown }) => documentInstance(value)),
    ValidateBy({
      name: 'isDocument',
      validator: {
        validate: (value: unknown) => headFault(value) === null,
        defaultMessage: (given) => headFault(given?.value) ?? '',
      },
    }),
    ValidateNested(),
  );
}
