// Sees to it that the programs of Debian's packages that tests use are there.
import { chromium } from './chromium.mjs';
import { compilers, engines } from './debian.mjs';

chromium();
compilers();
engines();
