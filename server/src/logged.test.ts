import { LOGGED } from './logged.ts';

test('a log line has method, address and status, and no header, cookie or secret link', () => {
  const request = Object.assign(Object.create(null), {
    id: 7,
    method: 'GET',
    url: '/api/shown/dont-tell?x=1',
    headers: { cookie: 'schritt-session=secret' },
  });
  const response = Object.assign(Object.create(null), {
    statusCode: 200,
    headers: { 'set-cookie': 'secret' },
  });
  expect([LOGGED.req(request), LOGGED.res(response)]).toEqual([
    { id: 7, method: 'GET', url: '/api/shown/...?x=1' },
    { statusCode: 200 },
  ]);
});
