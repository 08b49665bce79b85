import { dirname, join } from 'node:path';
import ts from 'typescript';
import * as document from './document.ts';
import * as format from './format.ts';
import * as inspect from './inspect.ts';
import { findInLibrary } from './method/library/find-method.ts';
import * as notation from './notation.ts';
import { studyWorkbook } from './publish/sheets/study-workbook.ts';
import * as sheets from './sheets.ts';
import * as study from './study.ts';
import * as text from './text.ts';

const HERE = dirname(__filename);
const ENTRIES = { notation, text, inspect, study, document, format, sheets };

/** What examples take for granted. */
const PRELUDE = `
import { findInLibrary } from './method/library/find-method.ts';
import { studyWorkbook } from './publish/sheets/study-workbook.ts';
const read = parseProblem("level' = -k*sqrt(level)\\nk = 0.35\\nlevel(0) = 4\\n0 <= t <= 8\\nlevel(t) = (2 - k*t/2)^2");
if (!read.ok) throw new Error('problem');
const problem = read.value;
const heun = findInLibrary('Heun')!;
const document: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: problem.text },
  methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }, { title: 'Heun', text: heun.text }],
  ladder: { counts: [8, 16, 32] },
};
const opened = openStudy(document);
if (!opened.ok) throw new Error('study');
const study = opened.study;
const result = runStudy(study);
const report = studyReport('Sluice', problem, result);
const run = compileWithStart(problem, heun, { find: findInLibrary, instead: null });
const grid = layGrid(0, 8, { steps: 16 });
const { rows } = rowsOf(run, grid, { from: 0, count: 5 });
const kept = keepRun(run, grid);
let next = kept.next();
while (next.done !== true) next = kept.next();
const longRun = next.value;
const inspection = inspectMethod(heun);
const workbook = studyWorkbook('Sluice', study, 1);
`;

interface Example {
  readonly name: string;
  readonly code: string;
  /** What it comes to, as code; null where nothing is said. */
  readonly value: string | null;
}

function functionsOf(checker: ts.TypeChecker, file: ts.SourceFile | undefined): readonly ts.Symbol[] {
  const symbol = file && checker.getSymbolAtLocation(file);
  return (symbol === undefined ? [] : checker.getExportsOfModule(symbol))
    .map((one) => (one.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(one) : one))
    .filter(({ flags }) => (flags & ts.SymbolFlags.Function) !== 0);
}

/** The examples in the doc comment of a function. */
function examplesOf(checker: ts.TypeChecker, symbol: ts.Symbol): readonly Example[] {
  return symbol.getJsDocTags(checker).flatMap(({ name, text: parts }): Example[] => {
    if (name !== 'example') return [];
    const [code = '', value] = ts.displayPartsToString(parts).split(' // ');
    return [{ name: symbol.name, code, value: value ?? null }];
  });
}

const OPTIONS: ts.CompilerOptions = {
  strict: true,
  noEmit: true,
  allowImportingTsExtensions: true,
  experimentalDecorators: true,
  emitDecoratorMetadata: true,
  strictPropertyInitialization: false,
  skipLibCheck: true,
  target: ts.ScriptTarget.ES2023,
  lib: ['lib.es2023.d.ts'],
  module: ts.ModuleKind.ESNext,
  moduleResolution: ts.ModuleResolutionKind.Bundler,
  types: [],
};

const FILE = join(HERE, 'examples.ts');

/** The examples as a file of code, one block each. */
function fileOf(examples: readonly Example[]): string {
  const imports = Object.entries(ENTRIES).map(([entry, module]) => {
    const types = entry === 'document' ? ', type StudyDocument' : '';
    return `import { ${Object.keys(module).join(', ')}${types} } from './${entry}.ts';`;
  });
  const blocks = examples.map(({ code }) =>
    code.startsWith('throw ') ? `() => { ${code}; };` : `void (${code});`,
  );
  return [...imports, PRELUDE, ...blocks].join('\n');
}

function programOf(source: string): ts.Program {
  const host = ts.createCompilerHost(OPTIONS);
  return ts.createProgram([FILE], OPTIONS, {
    ...host,
    getSourceFile: (name, target) => {
      const own = name === FILE ? source : host.readFile(name);
      return own === undefined ? undefined : ts.createSourceFile(name, own, target, true);
    },
    fileExists: (name) => name === FILE || host.fileExists(name),
  });
}

const ALL = Object.keys(ENTRIES);
const first = programOf(ALL.map((entry) => `import './${entry}.ts';`).join('\n'));
const checker = first.getTypeChecker();
const functions = ALL.flatMap((entry) =>
  functionsOf(checker, first.getSourceFile(join(HERE, `${entry}.ts`))),
);
const examples = functions.flatMap((symbol) => examplesOf(checker, symbol));

test('every public function has an example', () => {
  expect(functions.length).toBeGreaterThan(100);
  const without = functions.filter((symbol) => examplesOf(checker, symbol).length === 0);
  expect(without.map(({ name }) => name)).toEqual([]);
});

test('every example is code that compiles', () => {
  const program = programOf(fileOf(examples));
  const file = program.getSourceFile(FILE);
  const faults = [...program.getSyntacticDiagnostics(file), ...program.getSemanticDiagnostics(file)];
  expect(
    faults.map((fault) => {
      const line = file?.getLineAndCharacterOfPosition(fault.start ?? 0).line ?? 0;
      const shown = file?.text.split('\n')[line];
      return `${shown}: ${ts.flattenDiagnosticMessageText(fault.messageText, ' ')}`;
    }),
  ).toEqual([]);
});

describe('an example that says what it comes to', () => {
  const names = Object.assign({}, ...Object.values(ENTRIES), { findInLibrary, studyWorkbook });
  const script = ts
    .transpileModule(PRELUDE.replace(/^import .*$/gm, ''), {
      compilerOptions: { target: ts.ScriptTarget.ES2023, module: ts.ModuleKind.ESNext },
    })
    .outputText.replace(/^export .*$/gm, '');
  const evaluate = new Function(...Object.keys(names), `${script}\nreturn (code) => eval(code);`)(
    ...Object.values(names),
  );
  test.each(examples.flatMap(({ code, value }) => (value === null ? [] : [[code, value] as const])))(
    '%s is %s',
    (code, value) => {
      const plain = ts.transpileModule(`(${code})`, {
        compilerOptions: { target: ts.ScriptTarget.ES2023 },
      }).outputText;
      expect(evaluate(plain)).toEqual(evaluate(`(${value})`));
    },
  );
});
