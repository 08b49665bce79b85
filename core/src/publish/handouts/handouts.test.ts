import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CFB, read, utils } from '@e965/xlsx';
import { HyperFormula } from 'hyperformula';
import type { StudyDocument } from '../../document/document.ts';
import { Refusal } from '../../text/refusal.ts';
import { xlsx } from '../sheets/xlsx.ts';
import { parseBlanks } from './blanks.ts';
import { keyTables } from './keys.ts';
import { drawnPage, handoutHtml } from './handout-html.ts';
import { handoutTex } from './handout-tex.ts';
import { allowed, handoutWorkbook } from './handout-workbook.ts';
import { cutAtNumbers, withNumbers } from './hidden-numbers.ts';
import { type HandoutRequest, type Handouts, makeHandouts } from './make-handouts.ts';
import { parseChoices, variantsOf } from './variants.ts';

const NASTY = 'A & B <b> "q" 50 % $x$ \\input{/etc/passwd} =1+1 ß α';

const STUDY: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Reservoir',
  problem: {
    title: 'Reservoir',
    text: "w' = -k*w\nk = 0.5 # an hour\nw(0) = 8\n0 <= t <= 4\nw(t) = 8*exp(-k*t)",
  },
  methods: [
    { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
    { title: 'Heun', text: 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)' },
  ],
  ladder: { counts: [4, 8, 16] },
};

function made(request: Partial<HandoutRequest> = {}, document = STUDY): Handouts {
  return makeHandouts(document, {
    of: { kind: 'rows', method: 0, gridRequest: { h: 1 }, columns: null },
    title: 'Reservoir',
    task: '',
    blanks: 'rows after 2',
    digits: 4,
    plot: false,
    choices: '',
    sheets: 1,
    seed: 1,
    ...request,
  });
}

function refusal(work: () => unknown): string {
  try {
    work();
  } catch (thrown) {
    if (thrown instanceof Refusal) return thrown.message;
    throw thrown;
  }
  return 'made';
}

/** The sheets as a page on which plots are only named. */
function page(...given: Parameters<typeof handoutHtml>): string {
  return drawnPage(handoutHtml(...given), ({ kind }) => `<svg>${kind}</svg>`);
}

const typeset = (tex: string): string => `<math>${tex.replaceAll('&', '').replaceAll('<', '')}</math>`;

test('blanks are rows behind the first, columns, cells and numbers of the formula', () => {
  const blank = (blanks: string): string =>
    made({ blanks })
      .handouts[0]!.blank.map((row) => row.map((is) => (is ? '_' : '.')).join(''))
      .join(' ');
  // n, t, w, error
  expect(blank('rows after 2')).toBe('.... .... .... ..__ ..__');
  expect(blank('columns error')).toBe('...._'.slice(0, 3) + '_ ...'.concat('_ ...'.repeat(3), '_'));
  expect(blank('columns w; rows after 2')).toBe('.... .... .... .._. .._.');
  // rows of a run are counted by their n, from 0
  expect(blank('cells 1 w, 4 error')).toBe('.... .._. .... .... ..._');
  // and step sizes by their place, from 1
  const rungs = made({ blanks: 'rows after 1; cells 1 h', of: { kind: 'rungs' } }).handouts[0]!;
  expect(rungs.blank.map((row) => row.includes(true))).toEqual([true, true, true]);
  expect(rungs.blank[0]!.filter(Boolean)).toHaveLength(1);
  expect(parseBlanks('coefficients')).toMatchObject({ coefficients: true, after: null });
});

test.each([
  ['nothing I know', 'is not a blank; write columns k1, k2'],
  ['columns q', 'there is no column q; there are n, t, w, error'],
  ['cells w', 'is not a cell; write its row and its column'],
  ['cells 9 w', 'there is no row 9; the rows are 0 to 4'],
])('blanks %j are refused with what to write', (blanks, words) => {
  expect(refusal(() => made({ blanks }))).toContain(words);
});

test('the numbers of a formula are left out, those of indices and of other formulas stay', () => {
  const tex = 'y_{n+1} = y_{n} + \\frac{h}{24}\\,(55 f_{2} - 0.5 \\text{ab 3})';
  expect(cutAtNumbers(tex).flatMap((piece) => (piece.kind === 'number' ? [piece.text] : []))).toEqual([
    '24',
    '55',
    '0.5',
  ]);
  expect(withNumbers(tex, (text) => text)).toBe(tex);
  const { handouts } = made({ blanks: 'coefficients', of: { kind: 'rungs' } });
  const sheet = page({ handouts, keys: null }, { solved: false, paper: 'A4' }, typeset);
  expect(sheet).toContain('\\frac{h}{\\text{\\_\\_\\_}}');
  expect(page({ handouts, keys: null }, { solved: true, paper: 'A4' }, typeset)).toContain(
    '\\frac{h}{\\textcolor{#B5490F}{2}}',
  );
  // nor does the text of the method tell them where formulas are not set
  expect(JSON.stringify(handoutWorkbook(handouts, false, null))).not.toContain('h/2');
});

test('a sheet does not tell what its solution tells', () => {
  // Euler: 8*(1 - 1/2)^n
  const answers = ['1', '0.5000'];
  const { handouts, keys } = made({ task: NASTY, title: NASTY });
  for (const paper of ['A4', 'Letter'] as const) {
    const sheet = page({ handouts, keys }, { solved: false, paper }, typeset);
    const solved = page({ handouts, keys }, { solved: true, paper }, typeset);
    expect(sheet.match(/<td class="blank">/g)).toHaveLength(4);
    expect(sheet).not.toContain('class="answer"');
    expect(sheet).not.toContain('exp(');
    for (const answer of answers) expect(solved).toContain(`<td class="answer">${answer}</td>`);
    expect(solved).toContain(`size: ${paper};`);
    expect(sheet + solved).not.toContain('<b>');
  }
});

test('pdflatex sets sheets and solutions, of rungs and of rows, whatever their titles', () => {
  const folder = mkdtempSync(join(tmpdir(), 'schritt-handouts-'));
  try {
    const some: readonly Partial<HandoutRequest>[] = [
      { title: NASTY, task: NASTY, plot: true, blanks: 'rows after 2; coefficients' },
      { of: { kind: 'rungs' }, choices: 'k in 0.4, 0.5', sheets: 2 },
    ];
    some.forEach((request, i) => {
      const { handouts, keys } = made(request);
      for (const solved of [false, true]) {
        const name = `sheet${i}${String(solved)}`;
        writeFileSync(join(folder, `${name}.tex`), handoutTex(handouts, solved, 'Letter', keys));
        const log = execFileSync(
          'pdflatex',
          ['-interaction=nonstopmode', '-halt-on-error', '-no-shell-escape', `${name}.tex`],
          { cwd: folder, encoding: 'utf8' },
        );
        expect(log).toContain('Output written on');
      }
    });
  } finally {
    rmSync(folder, { recursive: true });
  }
}, 60_000);

test('a blank of a spreadsheet turns green where it agrees to the digits asked for, and red where it does not', async () => {
  const { handouts } = made({ blanks: 'cells 4 w, 2 error' });
  const bytes = await xlsx(handoutWorkbook(handouts, false, null));
  const book = read(bytes, { cellFormula: true, sheetStubs: true, cellStyles: true });
  // no answer is to be seen: neither in the sheet nor in the numbers that it is held against
  const w5 = 8 * 0.5 ** 4;
  const shown = book.SheetNames.flatMap((name) =>
    Object.values(book.Sheets[name]!).map((cell: unknown) => JSON.stringify(cell)),
  );
  expect(shown.some((cell) => cell.includes(`"v":${w5}}`))).toBe(false);
  expect(book.Workbook?.Sheets?.map(({ Hidden }) => Hidden)).toEqual([0, 2]);
  const xml = Buffer.from(
    CFB.find(CFB.read(Buffer.from(bytes), { type: 'buffer' }), '/xl/worksheets/sheet1.xml')?.content ?? [],
  ).toString('utf8');
  const rules = [
    ...xml.matchAll(/<conditionalFormatting sqref="([^"]+)">(.*?)<\/conditionalFormatting>/g),
  ].flatMap(([, ref = '', inside = '']) =>
    [...inside.matchAll(/<formula>(.*?)<\/formula>/g)].map(([, formula = '']) => ({
      ref,
      formula: formula
        .replaceAll('&lt;', '<')
        .replaceAll('&gt;', '>')
        .replaceAll('&quot;', '"')
        .replaceAll('&amp;', '&'),
    })),
  );
  expect(rules).toHaveLength(4);
  const holds = (ref: string, typed: string | number | null): readonly boolean[] =>
    rules
      .filter((rule) => rule.ref === ref)
      .map((rule) => {
        const { r, c } = utils.decode_cell(ref);
        const sheets = Object.fromEntries(
          book.SheetNames.map((name) => {
            const sheet = book.Sheets[name]!;
            const { e } = utils.decode_range(sheet['!ref'] ?? 'A1');
            return [
              name,
              Array.from({ length: Math.max(e.r, r) + 1 }, (_, i) =>
                Array.from({ length: Math.max(e.c, c) + 1 }, (__, j): string | number | null =>
                  name !== 'Check' ? null : (sheet[utils.encode_cell({ r: i, c: j })]?.v ?? null),
                ),
              ),
            ];
          }),
        );
        const engine = HyperFormula.buildFromSheets(sheets, { licenseKey: 'gpl-v3', smartRounding: false });
        const at = { sheet: engine.getSheetId(book.SheetNames[0]!)!, row: r, col: c };
        engine.setCellContents(at, typed);
        engine.setCellContents({ ...at, row: r + 40 }, `=${rule.formula}`);
        return engine.getCellValue({ ...at, row: r + 40 }) === true;
      });
  const [errorCell, wCell] = [...new Set(rules.map(({ ref }) => ref))];
  const error3 = Math.abs(8 * 0.25 - 8 * Math.exp(-1));
  const [right, wrong, neither] = [
    [true, false],
    [false, true],
    [false, false],
  ];
  expect(holds(errorCell!, Number(error3.toPrecision(4)))).toEqual(right);
  expect(holds(errorCell!, Number(error3.toPrecision(4)) + 0.0001)).toEqual(wrong);
  expect(holds(wCell!, 0.5)).toEqual(right);
  expect(holds(wCell!, 0.5001)).toEqual(wrong);
  expect(holds(wCell!, 'half')).toEqual(wrong);
  expect(holds(wCell!, null)).toEqual(neither);
});

test('half a unit of the last digit asked for is allowed', () => {
  expect(allowed(0.9431, 4)).toBeCloseTo(0.00005, 9);
  expect(allowed(-123, 2)).toBeCloseTo(5, 4);
  expect(allowed(0, 3)).toBe(0.0005);
});

test('lists of values: steps, whole numbers, expressions', () => {
  expect(parseChoices('k in 0.2, 0.25, ..., 0.4; start in 1..3\nw in pi/2, 1')).toEqual([
    { name: 'k', values: ['0.20', '0.25', '0.30', '0.35', '0.40'] },
    { name: 'start', values: ['1', '2', '3'] },
    { name: 'w', values: ['pi/2', '1'] },
  ]);
  for (const wrong of ['k = 3', 'k in 0.2, ..., 0.4', 'k in 1, 2, ..., 4.5', 'k in 1, , 2'])
    expect(() => parseChoices(wrong)).toThrow(Refusal);
});

test('variants are all different while there are enough, and the same for the same seed', () => {
  const choices = parseChoices('a in 1..4; b in 1..3');
  const twelve = variantsOf(choices, 12, 5);
  expect(new Set(twelve.map((variant) => JSON.stringify(variant))).size).toBe(12);
  expect(variantsOf(choices, 12, 5)).toEqual(twelve);
  expect(variantsOf(choices, 12, 6)).not.toEqual(twelve);
  expect(variantsOf(choices, 13, 5).slice(0, 12)).toEqual(twelve);
  expect(() => variantsOf(choices, 0, 1)).toThrow(Refusal);
});

test('keys are set in tables that fit on paper, with every blank', () => {
  const { keys } = made({
    of: { kind: 'rows', method: 1, gridRequest: { h: 0.5 }, columns: null },
    choices: 'k in 0.2, 0.4',
    sheets: 2,
    blanks: 'columns k1, k2, w; rows after 2',
  });
  // n = 3 to 8, k1 and k2 of the steps from 3 to 7
  const pieces = keyTables(keys!);
  expect(keys!.table.columns).toHaveLength(2 + 6 + 5 + 5);
  expect(pieces.map(({ columns }) => columns.length)).toEqual([8, 8, 6]);
  for (const { columns, rows } of pieces) {
    expect(columns.slice(0, 2).map(({ title }) => title)).toEqual(['sheet', 'k']);
    expect(rows.map((row) => row.length)).toEqual([columns.length, columns.length]);
  }
  expect(pieces.flatMap(({ columns }) => columns.slice(2))).toEqual(keys!.table.columns.slice(2));
  expect(keys!.table.columns[2]!.title).toMatch(/, n = 3$/);
});

test('sheets that repeat others, and numbers with which a run overflows, are reported', () => {
  expect(made({ choices: 'k in 0.2, 0.4', sheets: 3 }).keys!.note).toBe(
    'There are 2 combinations of these values for 3 variants: some are alike.',
  );
  expect(made({ choices: 'k in 0.2, 0.4', sheets: 2 }).keys!.note).toBeNull();
  const squares: StudyDocument = {
    ...STUDY,
    problem: { title: 'Squares', text: "w' = w^2 - k\nk = 4\nw(0) = 1\n0 <= t <= 4" },
    ladder: { counts: [40, 80] },
  };
  const rungs = { of: { kind: 'rungs' } as const, blanks: 'rows after 1' };
  expect(refusal(() => made({ ...rungs, choices: 'k in 3, 4', sheets: 2 }, squares))).toBe('made');
  expect(refusal(() => made({ ...rungs, choices: 'w(0) in 1, 9', sheets: 2 }, squares))).toMatch(
    /^sheet \d \(w\(0\) = 9\): .* has no value in row 1: the run overflows$/,
  );
});

test('every variant has its number, its key, and a line in the table of all keys', () => {
  const { handouts, keys } = made({ choices: 'k in 0.2, 0.25, ..., 0.4', sheets: 5, blanks: 'cells 4 w' });
  expect(handouts.map(({ number }) => number)).toEqual([1, 2, 3, 4, 5]);
  for (const [number, k, w] of keys!.table.rows) {
    // Euler with h = 1: 8*(1 - k)^4
    expect(Number(w)).toBeCloseTo(8 * (1 - Number(k)) ** 4, 12);
    const sheet = handouts[Number(number) - 1]!;
    expect(sheet.problem.join()).toContain(`k = ${Number(k)}`);
    expect(sheet.table.rows[4]![2]).toBe(w);
  }
  expect(page({ handouts, keys }, { solved: true, paper: 'A4' }, typeset)).toContain('All keys');
  expect(page({ handouts, keys }, { solved: false, paper: 'A4' }, typeset)).not.toContain('All keys');
});

test.each<[string, Partial<HandoutRequest>, string]>([
  [
    'an exact solution that a variant spoils',
    { choices: 'w(0) in 7..8', sheets: 2 },
    'w is 8 at the start, not 7',
  ],
  [
    'a name that there is not',
    { choices: 'q in 1..2' },
    'no parameter and no initial value q; there are the parameters k',
  ],
  [
    'more rows than a sheet has',
    { of: { kind: 'rows', method: 0, gridRequest: { steps: 60 }, columns: null } },
    'at most 60 rows',
  ],
])('%s is refused with the reason', (_, request, words) => {
  expect(refusal(() => made(request))).toContain(words);
});

test('a run that becomes non-finite makes no sheet', () => {
  const text = "w' = -sqrt(w - 1)\nw(0) = 1.5\n0 <= t <= 4";
  const words = refusal(() => made({}, { ...STUDY, problem: { title: 'Reservoir', text } }));
  expect(words).toContain("Euler stops in step 2: sqrt(-0.2071) is not a real number in w'");
});
