#!/usr/bin/env node
// The terminal program as it is installed from its package.
import { main } from './main.ts';

await main();
