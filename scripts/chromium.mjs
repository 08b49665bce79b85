// Sees to it that Debian's Chromium is there for the tests of the interface.
import { debian } from './debian.mjs';

export function chromium() {
  debian(['chromium'], ['chromium']);
}
