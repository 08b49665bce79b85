import { HttpException } from '@nestjs/common';
import { ApiProperty } from '@nestjs/swagger';

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

  @ApiProperty({ enum: ['bad-request', 'not-found', 'stale-version', 'too-large', 'internal'] })
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

export type ApiErrorCode = 'bad-request' | 'not-found' | 'stale-version' | 'too-large' | 'internal';

const STATUS: Readonly<Record<ApiErrorCode, number>> = {
  'bad-request': 400,
  'not-found': 404,
  'stale-version': 409,
  'too-large': 413,
  internal: 500,
};

/** An error that a client is told about, with a body of the one form all errors have. */
export class ApiError extends HttpException {
  readonly body: ApiErrorBody;

  constructor(code: ApiErrorCode, message: string, faults: readonly ApiFault[] = [], current?: unknown) {
    const status = STATUS[code];
    const body = { status, code, message, faults, ...(current === undefined ? {} : { current }) };
    super(body, status);
    this.body = body;
  }
}
