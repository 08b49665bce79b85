// What may import what: no circles, and rooms of a package in an order, each importing only those before it.

/** The rooms of core, in the order of the way from text to file. */
const CORE = [
  'text',
  'writing',
  'elementary',
  'formula',
  'decimal',
  'problem',
  'method',
  'program',
  'compile',
  'run',
  'reference',
  'inspect',
  'study/measures',
  'study/trial',
  'study/runs',
  'study/judge',
  'study/findings',
  'study',
  'document',
  'hints',
  'worked',
  'marking',
  'publish',
];
/** The rooms of the page: what a person sees reads the state of the page and hands nothing on. */
const WEB = [
  'theme',
  'api',
  'math',
  'worker',
  'frame',
  'plots',
  'state',
  'editor',
  'panels',
  'ruler',
  'tables',
  'sentences',
  'statement',
  'export',
  'marking',
  'step',
  'entries',
  'texts',
  'pages',
];
/** The modules of the server: entries and jobs know the store and its errors, nothing knows the demo. */
const SERVER = [
  'errors',
  'requests',
  'access',
  'documents',
  'tasks',
  'threads',
  'engines',
  'worker',
  'entries',
  'jobs',
  'metrics',
  'demo',
  'store',
  'pages',
];

/** For each room, the later ones as folders that it does not import from. A test may look back. */
const ordered = (folder, rooms) =>
  rooms.slice(0, -1).map((room, i) => ({
    name: `order-of-${folder.split('/')[0]}: ${room}`,
    severity: 'error',
    from: { path: `^${folder}/${room}/`, pathNot: ['[.]test[.]tsx?$', `^${folder}/${room}/.*/$`] },
    to: {
      path: rooms
        .slice(i + 1)
        .filter((later) => !room.startsWith(`${later}/`))
        .map((later) => `^${folder}/${later}/`),
      pathNot: rooms.slice(0, i + 1).map((own) => `^${folder}/${own}/`),
    },
  }));

/** @type {import('dependency-cruiser').IConfiguration} */
export default {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    ...ordered('core/src', CORE),
    ...ordered('web/src', WEB),
    ...ordered('server/src', SERVER),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: ['/dist/', '[.]css$'] },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.test.json' },
    enhancedResolveOptions: {
      conditionNames: ['@schritt/source', 'import', 'types', 'node', 'default'],
      exportsFields: ['exports'],
    },
  },
};
