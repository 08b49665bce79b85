import type { Relation } from '../../formula/expression.ts';
import { BY_NAME, countedFromOne, decimal, shifted } from './writing-parts.ts';
import { exactRoutine } from './fortran-exact.ts';
import { fortranHelpers } from './fortran-helpers.ts';
import { broken, indented, lineText, unread } from './fortran-lines.ts';
import type { CodeLine, ProgramParts, StepRoutine, Writing } from './language.ts';
import { headNotes } from './notes.ts';
import { FORTRAN_WORDS } from './reserved-words.ts';
import { componentTexts, keepsRhs, stateNames, stepArguments, stepOutputs } from './routines.ts';
import { signedBy } from './signed.ts';

const FORTRAN_RELATION: Readonly<Record<Relation, string>> = {
  '<': '<',
  '<=': '<=',
  '>': '>',
  '>=': '>=',
  '==': '==',
  '!=': '/=',
};

const FORTRAN_NAMES: Readonly<Record<string, string>> = {
  ln: 'log',
  log2: 'log_2',
  cbrt: 'cube_root',
  sign: 'sign_of',
  floor: 'whole_below',
  mod: 'remainder',
};

/** How the language writes the parts of a formula. */
export const FORTRAN: Writing = {
  ...countedFromOne((vector, index) => `${vector}(${index})`),
  ...BY_NAME,
  reserved: FORTRAN_WORDS,
  integers: 'beside doubles',
  isWhole: true,
  number: (value) => {
    const text = decimal(value);
    return text.includes('e') ? text.replace('e', 'd') : `${text}d0`;
  },
  power: (base, exponent) => ({ text: `(${base})**(${exponent})`, holds: 'power' }),
  call: (name, inputs) => `${FORTRAN_NAMES[name] ?? name}(${inputs.join(', ')})`,
  choice: ({ left, relation, right, yes, no }) =>
    `merge(${yes}, ${no}, ${left} ${FORTRAN_RELATION[relation]} ${right})`,
  counted: (counter, ahead) => `real(${shifted(counter, ahead)}, dp)`,
};

const signed = signedBy(FORTRAN);

function declared(names: readonly string[], width: number): readonly string[] {
  return names.length === 0
    ? []
    : [`real(dp) :: ${names.map((name) => (width === 1 ? name : `${name}(${width})`)).join(', ')}`];
}

/** Declarations of the state, and of what a routine only reads beside it. */
function stepDeclarations(step: StepRoutine, width: number): readonly string[] {
  const form = width === 1 ? '' : `(${width})`;
  return [
    ...(step.usesNumber ? ['integer, intent(in) :: n'] : []),
    'real(dp), intent(in) :: t, h',
    `real(dp), intent(inout) :: ${stateNames(step)
      .map((name) => `${name}${form}`)
      .join(', ')}`,
  ];
}

/** One step of a method: it replaces the present state by the next one. */
function stepLines(parts: ProgramParts, step: StepRoutine): readonly string[] {
  const lines = step.body.flatMap(lineText);
  const last = stepOutputs(step).map(({ name, value }) => `${name} = ${value}`);
  const isLoop = lines.some((line) => /^ *do j = /.test(line));
  return [
    `subroutine ${step.name}(${stepArguments(step).join(', ')})`,
    ...indented([
      ...stepDeclarations(step, parts.width),
      ...declared(step.numbers, 1),
      ...declared(step.arrays, parts.width),
      ...step.rooms.map(({ name, size }) => `real(dp) :: ${name}(${size})`),
      ...(isLoop ? ['integer :: j'] : []),
      ...(step.solves ? ['integer :: round'] : []),
      ...(step.rooms.length > 0 ? ['integer :: column', 'logical :: ok'] : []),
      ...unread(['t'], [...lines, ...last]),
      ...lines,
      ...last,
    ]),
    `end subroutine ${step.name}`,
    '',
  ];
}

function rhsRoutine(
  { width }: ProgramParts,
  rhsName: string,
  vectors: readonly string[],
  rightHandSides: readonly CodeLine[],
): readonly string[] {
  const own = vectors.join(', ');
  const lines = rightHandSides.flatMap(lineText);
  if (width === 1)
    return [
      `function ${rhsName}(t, ${own}) result(d)`,
      ...indented([
        `real(dp), intent(in) :: t, ${own}`,
        'real(dp) :: d',
        ...unread(['t', ...vectors], lines),
        ...lines,
      ]),
      `end function ${rhsName}`,
      '',
    ];
  return [
    `subroutine ${rhsName}(t, ${own}, d)`,
    ...indented([
      `real(dp), intent(in) :: t, ${vectors.map((name) => `${name}(${width})`).join(', ')}`,
      `real(dp), intent(out) :: d(${width})`,
      ...(rightHandSides.some(({ kind }) => kind === 'each') ? ['integer :: j'] : []),
      ...unread(['t', ...vectors], lines),
      ...lines,
    ]),
    `end subroutine ${rhsName}`,
    '',
  ];
}

/** Lines that do step n: by the method, or by the one that it starts with. */
function advanceLines(parts: ProgramParts): readonly string[] {
  const { step, starter, depth, rhsName, width } = parts;
  const call = (of: StepRoutine): string => `call ${of.name}(${stepArguments(of).join(', ')})`;
  if (starter === null) return [call(step)];
  const own = step.vectors.join(', ');
  return [
    `if (n < ${depth}) then`,
    ...indented([
      ...(keepsRhs(parts)
        ? [width === 1 ? `f_0 = ${rhsName}(t, ${own})` : `call ${rhsName}(t, ${own}, f_0)`]
        : []),
      ...step.kept.map(({ name, from }) => `${name} = ${from}`),
      call(starter),
    ]),
    'else',
    `  ${call(step)}`,
    'end if',
  ];
}

/** The run from point to point, and its end where a value is not finite. */
function runRoutines(parts: ProgramParts, components: readonly string[]): readonly string[] {
  const { step, starter, width, size, lastStep } = parts;
  const own = step.vectors.join(', ');
  const form = width === 1 ? '' : `(${width})`;
  const kept = step.kept.map(({ name }) => name);
  const finite = step.vectors
    .map((name) => (width === 1 ? `abs(${name}) <= huge(h)` : `all(abs(${name}) <= huge(h))`))
    .join(' .and. ');
  return [
    '! the values after so many steps; the points on the way are printed where that is asked for',
    `subroutine run(h, steps, prints, ${own})`,
    ...indented([
      'real(dp), intent(in) :: h',
      'integer, intent(in) :: steps',
      'logical, intent(in) :: prints',
      `real(dp), intent(out) :: ${step.vectors.map((name) => `${name}${form}`).join(', ')}`,
      ...declared([...kept, ...(starter !== null && keepsRhs(parts) ? ['f_0'] : [])], width),
      'real(dp) :: t',
      'integer :: n',
      ...(parts.initial.some(({ kind }) => kind === 'each') ? ['integer :: j'] : []),
      ...parts.initial.flatMap(lineText),
      ...kept.map((name) => `${name} = 0.0d0`),
      `if (prints) call row(0, T_START, ${own})`,
      'do n = 0, steps - 1',
      ...indented([
        't = T_START + n*h',
        ...advanceLines(parts),
        `if (.not. (${finite})) then`,
        "  write (error_unit, '(a, i0, a, es13.6, a)') 'stops in step ', n + 1, ' from t = ', t, ': not a finite number'",
        '  stop 1',
        'end if',
        `if (prints) call row(n + 1, T_START + (n + 1)*h, ${own})`,
      ]),
      'end do',
    ]),
    'end subroutine run',
    '',
    `subroutine row(n, t, ${own})`,
    ...indented([
      'integer, intent(in) :: n',
      `real(dp), intent(in) :: t, ${step.vectors.map((name) => `${name}${form}`).join(', ')}`,
      `character(len=${60 + 30 * size}) :: line`,
      "write (line, '(i0)') n",
      "line = trim(line) // ',' // trim(text_of(t))",
      ...components.map((name) => `line = trim(line) // ',' // trim(text_of(${name}))`),
      "print '(a)', trim(line)",
    ]),
    'end subroutine row',
    '',
    'subroutine steps_for(h, steps)',
    ...indented([
      'real(dp), intent(inout) :: h',
      'integer, intent(out) :: steps',
      'real(dp) :: length, quotient',
      'length = T_END - T_START',
      'quotient = length/h',
      'steps = max(1, nint(quotient))',
      'if (abs(quotient - steps) <= 1.0d-12*steps) return',
      ...(lastStep === 'overrun'
        ? ['steps = ceiling(quotient)']
        : [
            'steps = max(1, int(quotient))',
            'if (.not. abs(length/steps - h) < abs(length/(steps + 1) - h)) steps = steps + 1',
            'h = length/steps',
          ]),
    ]),
    'end subroutine steps_for',
    '',
    'function text_of(x) result(text)',
    ...indented([
      'real(dp), intent(in) :: x',
      'character(len=30) :: text',
      "write (text, '(es25.16e3)') x",
      'text = adjustl(text)',
    ]),
    'end function text_of',
    '',
  ];
}

/** The rows of one run, or errors and orders for the step sizes as arguments. */
function mainRoutine(parts: ProgramParts, components: readonly string[]): readonly string[] {
  const { steps, h, exact, independent, step, width, size } = parts;
  const own = step.vectors.join(', ');
  const header = (names: readonly string[]): string =>
    `'${[...names, ...parts.components].join(',').replaceAll("'", "''")}'`;
  const result =
    exact === null
      ? components.map((name) => `line = trim(line) // ',' // trim(text_of(${name}))`)
      : [
          `error = error_at(T_START + steps*h, ${own})`,
          "line = trim(line) // ',' // trim(text_of(error)) // ','",
          'if (abs(last_h - h) > 0 .and. last_error > 0 .and. error > 0) then',
          "  write (text, '(f12.6)') log(last_error/error)/log(last_h/h)",
          '  line = trim(line) // trim(adjustl(text))',
          'end if',
          'last_h = h',
          'last_error = error',
        ];
  return [
    'subroutine print_all()',
    ...indented([
      `real(dp) :: h, ${step.vectors.map((name) => (width === 1 ? name : `${name}(${width})`)).join(', ')}`,
      ...(exact === null ? [] : ['real(dp) :: error, last_h, last_error']),
      'integer :: i, steps, status',
      `character(len=${60 + 30 * size}) :: line`,
      'character(len=60) :: text',
      'if (command_argument_count() == 0) then',
      ...indented([
        `h = ${signed(h)} ! N = ${steps}`,
        'call steps_for(h, steps)',
        `print '(a)', ${header(['n', independent])}`,
        `call run(h, steps, .true., ${own})`,
        'return',
      ]),
      'end if',
      exact === null ? `print '(a)', ${header(['h', 'N'])}` : "print '(a)', 'h,N,error,order'",
      ...(exact === null ? [] : ['last_h = 0.0d0', 'last_error = 0.0d0']),
      'do i = 1, command_argument_count()',
      ...indented([
        'call get_command_argument(i, text)',
        'read (text, *, iostat=status) h',
        "if (status /= 0 .or. .not. h > 0.0d0) error stop 'this is not a step size'",
        'call steps_for(h, steps)',
        `call run(h, steps, .false., ${own})`,
        "write (text, '(i0)') steps",
        "line = trim(text_of(h)) // ',' // trim(text)",
        ...result,
        "print '(a)', trim(line)",
      ]),
      'end do',
    ]),
    'end subroutine print_all',
    '',
  ];
}

/** The constants that are computed when the program runs; none where all are known. */
function setUpRoutine({ constants }: ProgramParts): readonly string[] {
  const computed = constants.filter(({ isComputed }) => isComputed);
  if (computed.length === 0) return [];
  return [
    'subroutine set_up()',
    ...indented(computed.map(({ name, value }) => `${name} = ${value}`)),
    'end subroutine set_up',
    '',
  ];
}

/** A program in Fortran 2008 that does what a run does. */
export function fortranProgram(parts: ProgramParts): string {
  const { step, starter, constants } = parts;
  const components = componentTexts(parts, FORTRAN.element);
  const routines = [
    ...setUpRoutine(parts),
    ...rhsRoutine(parts, parts.rhsName, step.vectors, parts.rightHandSides),
    ...(parts.moved === null
      ? []
      : [
          "! directional derivative of the right-hand side along v, for the Jacobian in Newton's method",
          ...rhsRoutine(parts, `${parts.rhsName}_moved`, [...step.vectors, 'v'], parts.moved),
        ]),
    ...exactRoutine(parts, components),
    ...stepLines(parts, step),
    ...(starter === null ? [] : stepLines(parts, starter)),
    ...runRoutines(parts, components),
    ...mainRoutine(parts, components),
  ];
  const text = routines.join('\n');
  const notes = headNotes(parts, {
    before: ['gfortran -std=f2008 -O2 -ffp-contract=off -o program program.f90'],
    rows: './program',
    sizes: './program H1 H2 ...',
    library: 'the Fortran library',
    plot: 'gnuplot',
  });
  const lines = [
    ...notes.map((line) => `! ${line}`.trimEnd()),
    'program main',
    ...indented([
      'use, intrinsic :: iso_fortran_env, only: error_unit',
      'implicit none',
      'integer, parameter :: dp = kind(1.0d0)',
      ...constants.map(({ name, value, note, isComputed }) => {
        const shown = note === null ? '' : ` ! ${note}`;
        return isComputed
          ? `real(dp) :: ${name}${shown}`
          : `real(dp), parameter :: ${name} = ${value}${shown}`;
      }),
      ...(constants.some(({ isComputed }) => isComputed) ? ['call set_up()'] : []),
      'call print_all()',
    ]),
    'contains',
    '',
    ...indented([...fortranHelpers(text), ...routines]),
    'end program main',
  ];
  return `${lines.flatMap(broken).join('\n')}\n`;
}
