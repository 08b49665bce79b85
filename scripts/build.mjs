import { buildNode, buildWeb, install } from './fresh.mjs';

install();
buildNode();
buildWeb();
