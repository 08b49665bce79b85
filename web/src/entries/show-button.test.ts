import { isThisMachine } from './show-button.tsx';

test.each([
  ['127.0.0.1', true],
  ['127.1.2.3', true],
  ['localhost', true],
  ['schritt.localhost', true],
  ['[::1]', true],
  ['192.168.7.20', false],
  ['schritt.almbach.example', false],
  ['127.example', false],
])('a link to %s opens on this computer only: %s', (host, is) => {
  expect(isThisMachine(host)).toBe(is);
});
