import { type ArgumentsHost, HttpException, Logger, NotFoundException } from '@nestjs/common';
import { ApiError } from './api-error.ts';
import { ErrorFilter } from './error.filter.ts';
import { validation } from './validation.ts';

/** The status and body that the filter answers for what was thrown. */
function answered(thrown: unknown): {
  readonly status: number;
  readonly body: { readonly code: string; readonly message: string };
} {
  const answer = { status: 0, body: { code: '', message: '' } };
  const response = {
    status(status: number) {
      answer.status = status;
      return response;
    },
    json(body: typeof answer.body) {
      answer.body = body;
    },
  };
  const host: ArgumentsHost = Object.assign(Object.create(null), {
    switchToHttp: () => ({ getResponse: () => response }),
  });
  new ErrorFilter().catch(thrown, host);
  return answer;
}

test.each<[string, unknown, number, string, string]>([
  [
    'an error of the API',
    new ApiError('stale-version', 'changed elsewhere'),
    409,
    'stale-version',
    'changed elsewhere',
  ],
  ['no such address', new NotFoundException(), 404, 'not-found', 'not found'],
  ['too much', new HttpException('x', 413), 413, 'too-large', 'The request body is too large.'],
  [
    'too much, by the reader of bodies',
    Object.assign(new Error('x'), { status: 413 }),
    413,
    'too-large',
    'The request body is too large.',
  ],
  [
    'no JSON',
    Object.assign(new SyntaxError('x'), { status: 400 }),
    400,
    'bad-request',
    'the body is not JSON',
  ],
  ['another refusal', new HttpException('not like this', 422), 400, 'bad-request', 'not like this'],
])('%s has the one body of all errors', (_, thrown, status, code, message) => {
  expect(answered(thrown)).toMatchObject({ status, body: { status, code, message, faults: [] } });
});

test.each([new Error('a path of the machine'), 'a text', null, { status: '400' }])(
  'what is unforeseen is logged, and told without its inside: %p',
  (thrown) => {
    const log = jest.spyOn(Logger.prototype, 'error').mockImplementation(() => undefined);
    const { status, body } = answered(thrown);
    expect(status).toBe(500);
    expect(body.message).toBe('something went wrong inside the server; nothing was changed');
    expect(log).toHaveBeenCalledTimes(1);
    log.mockRestore();
  },
);

class Lake {
  name: string;
}

test('fields that a body should not have are faults with their places', async () => {
  const refused = validation().transform({ strange: 1 }, { type: 'body', metatype: Lake });
  await expect(refused).rejects.toMatchObject({
    body: {
      code: 'bad-request',
      faults: [{ place: 'strange', message: 'is not a field of this format' }],
    },
  });
});
