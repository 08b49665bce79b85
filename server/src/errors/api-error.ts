import { HttpException } from '@nestjs/common';
import { ApiProperty } from '@nestjs/swagger';

/** The status of every kind of error. */
export const ERROR_STATUS = {
  'bad-request': 400,
  /** Writing from elsewhere needs the key. */
  'no-key': 401,
  /** Another page asked in the name of a person. */
  'other-origin': 403,
  'not-found': 404,
  'wrong-method': 405,
  'stale-version': 409,
  /** Only what is in the bin can be deleted permanently. */
  'not-in-bin': 409,
  'too-large': 413,
  /** Asked under a name that is none of this server's. */
  'wrong-host': 421,
  'too-many': 429,
  internal: 500,
  /** What is stored cannot be read. */
  damaged: 500,
  /** More heavy work waits than can be done in time. */
  busy: 503,
  'no-room': 507,
} as const;

export type ApiErrorCode = keyof typeof ERROR_STATUS;

/** One fault with its place in what was sent. */
export class ApiFault {
  @ApiProperty()
  place: string;

  @ApiProperty()
  message: string;
}

/** The body of every error of this server. */
export class ApiErrorBody {
  @ApiProperty({ example: 404 })
  status: number;

  @ApiProperty({ enum: Object.keys(ERROR_STATUS) })
  code: ApiErrorCode;

  @ApiProperty()
  message: string;

  @ApiProperty({ type: [ApiFault] })
  faults: readonly ApiFault[];

  @ApiProperty({
    required: false,
    type: () => Object,
    description: 'with a stale version: the entry as it is now',
  })
  current?: unknown;
}

/** An error for a client, with the body that all errors have. */
export class ApiError extends HttpException {
  readonly body: ApiErrorBody;

  constructor(code: ApiErrorCode, message: string, faults: readonly ApiFault[] = [], current?: unknown) {
    const status = ERROR_STATUS[code];
    const body = { status, code, message, faults, ...(current === undefined ? {} : { current }) };
    super(body, status);
    this.body = body;
  }
}
