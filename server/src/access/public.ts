import { SetMetadata } from '@nestjs/common';

/** Metadata key of routes that need no session. */
export const PUBLIC = 'public';

/** Declares that a route needs no session; every other route is closed to those who have none. */
export const Public = (): MethodDecorator => SetMetadata(PUBLIC, true);
