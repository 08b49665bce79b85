#!/usr/bin/env node
// The terminal program as it is installed from its package.
import { main } from './main.ts';

// not awaited: parts that are loaded later import from this file, and it must have ended before
void main();
