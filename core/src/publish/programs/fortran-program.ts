import type { Relation } from '../../formula/expression.ts';
import { decimal, shifted } from './writing-parts.ts';
import { exactRoutine } from './fortran-exact.ts';
import { fortranHelpers } from './fortran-helpers.ts';
import { broken, indented, lineText } from './fortran-lines.ts';
import type { CodeLine, ProgramParts, StepRoutine, Writing } from './language.ts';
import { headNotes, placesByComponent } from './notes.ts';
import { FORTRAN_WORDS } from './reserved-words.ts';
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
  reserved: FORTRAN_WORDS,
  number: (value) => {
    const text = decimal(value);
    return text.includes('e') ? text.replace('e', 'd') : `${text}d0`;
  },
  power: (base, exponent) => ({ text: `(${base})**(${exponent})`, holds: 'power' }),
  call: (name, inputs) => `${FORTRAN_NAMES[name] ?? name}(${inputs.join(', ')})`,
  choice: ({ left, relation, right, yes, no }) =>
    `merge(${yes}, ${no}, ${left} ${FORTRAN_RELATION[relation]} ${right})`,
  at: (vector, index) => `${vector}(${index} + 1)`,
  element: (vector, i) => `${vector}(${i + 1})`,
  running: (vector, counter, ahead) => `${vector}(${shifted(counter, ahead + 1)})`,
  counted: (counter, ahead) => `real(${shifted(counter, ahead)}, dp)`,
};

const signed = signedBy(FORTRAN);

function declared(names: readonly string[], width: number): readonly string[] {
  return names.length === 0
    ? []
    : [`real(dp) :: ${names.map((name) => (width === 1 ? name : `${name}(${width})`)).join(', ')}`];
}

function stepLines(parts: ProgramParts, step: StepRoutine): readonly string[] {
  return [
    `subroutine ${step.name}(n, h)`,
    ...indented([
      'integer, intent(in) :: n',
      'real(dp), intent(in) :: h',
      'real(dp) :: t',
      ...declared(step.numbers, 1),
      ...declared(step.arrays, parts.width),
      ...step.rooms.map(({ name, size }) => `real(dp) :: ${name}(${size})`),
      ...(parts.width === 1 ? [] : ['integer :: j']),
      ...(step.solves ? ['integer :: round'] : []),
      ...(step.rooms.length > 0 ? ['integer :: column', 'logical :: ok'] : []),
      't = start + real(n, dp)*h',
      ...step.body.flatMap(lineText),
      ...step.kept.map(({ name, from }) => `${name} = ${from}`),
      ...step.vectors.map((vector, i) => `${vector} = ${step.next[i] ?? ''}`),
    ]),
    `end subroutine ${step.name}`,
    '',
  ];
}

function keepLines({ step, width, rhsName }: ProgramParts): readonly string[] {
  const own = step.vectors.join(', ');
  const needsRhs = step.kept.some(({ from }) => from === 'f_0');
  return [
    'subroutine keep(n, h)',
    ...indented([
      'integer, intent(in) :: n',
      'real(dp), intent(in) :: h',
      ...(needsRhs
        ? [
            'real(dp) :: t',
            ...declared(['f_0'], width),
            't = start + real(n, dp)*h',
            width === 1 ? `f_0 = ${rhsName}(t, ${own})` : `call ${rhsName}(t, ${own}, f_0)`,
          ]
        : []),
      ...step.kept.map(({ name, from }) => `${name} = ${from}`),
    ]),
    'end subroutine keep',
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
  if (width === 1)
    return [
      `function ${rhsName}(t, ${own}) result(d)`,
      ...indented([
        `real(dp), intent(in) :: t, ${own}`,
        'real(dp) :: d',
        ...rightHandSides.flatMap(lineText),
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
      ...rightHandSides.flatMap(lineText),
    ]),
    `end subroutine ${rhsName}`,
    '',
  ];
}

function mainLines(parts: ProgramParts, components: readonly string[]): readonly string[] {
  const { steps, h, exact, independent } = parts;
  const header = (names: readonly string[]): string =>
    `'${[...names, ...parts.components].join(',').replaceAll("'", "''")}'`;
  const put = (values: readonly string[], after = ''): readonly string[] =>
    values.map((value) => `line = trim(line) // ',' // trim(digits(${value}))${after}`);
  return [
    'call set_up()',
    'if (command_argument_count() == 0) then',
    ...indented([
      `h = ${signed(h)} ! N = ${steps}: (t_end - start)/${steps}`,
      'call steps_for(h, steps)',
      'call begin()',
      `print '(a)', ${header(['n', independent])}`,
      'call row(0, h)',
      'do n = 0, steps - 1',
      '  call advance(n, h)',
      '  call row(n + 1, h)',
      'end do',
    ]),
    'else',
    ...indented([
      exact === null ? `print '(a)', ${header(['h', 'N'])}` : "print '(a)', 'h,N,error,order'",
      'do i = 1, command_argument_count()',
      ...indented([
        'call get_command_argument(i, text)',
        'read (text, *, iostat=status) h',
        "if (status /= 0 .or. .not. h > 0.0d0) error stop 'this is not a step size'",
        'call steps_for(h, steps)',
        'call begin()',
        'do n = 0, steps - 1',
        '  call advance(n, h)',
        'end do',
        "write (text, '(i0)') steps",
        "line = trim(digits(h)) // ',' // trim(text)",
        ...(exact === null
          ? [...put(components), "print '(a)', trim(line)"]
          : [
              'error = error_at(start + real(steps, dp)*h)',
              "line = trim(line) // ',' // trim(digits(error)) // ','",
              'if (i > 1) then',
              "  write (text, '(f12.6)') log(last_error/error)/log(last_h/h)",
              '  line = trim(line) // trim(adjustl(text))',
              'end if',
              "print '(a)', trim(line)",
              'last_h = h',
              'last_error = error',
            ]),
      ]),
      'end do',
    ]),
    'end if',
  ];
}

/** What takes steps, and how many: with the constants that are computed, and the end of a run that is not finite. */
function runRoutines({ step, starter, width, depth, constants, lastStep }: ProgramParts): readonly string[] {
  return [
    'subroutine advance(n, h)',
    ...indented([
      'integer, intent(in) :: n',
      'real(dp), intent(in) :: h',
      ...(starter === null
        ? ['call step(n, h)']
        : [
            `if (n < ${depth}) then`,
            '  call keep(n, h)',
            '  call first_step(n, h)',
            'else',
            '  call step(n, h)',
            'end if',
          ]),
      `if (.not. (${step.vectors.map((name) => (width === 1 ? `abs(${name}) <= huge(h)` : `all(abs(${name}) <= huge(h))`)).join(' .and. ')})) then`,
      "  write (error_unit, '(a, i0, a, es13.6, a)') 'stops in step ', n + 1, ' from t = ', start + real(n, dp)*h, &",
      "    ': not a finite number'",
      '  stop 1',
      'end if',
    ]),
    'end subroutine advance',
    '',
    'subroutine set_up()',
    ...indented(
      constants.flatMap(({ name, value, isComputed }) => (isComputed ? [`${name} = ${value}`] : [])),
    ),
    'end subroutine set_up',
    '',
    'subroutine steps_for(h, steps)',
    ...indented([
      'real(dp), intent(inout) :: h',
      'integer, intent(out) :: steps',
      'real(dp) :: length, quotient',
      'length = t_end - start',
      'quotient = length/h',
      'steps = max(1, nint(quotient))',
      'if (abs(quotient - real(steps, dp)) <= 1.0d-12*real(steps, dp)) return',
      ...(lastStep === 'overrun'
        ? ['steps = ceiling(quotient)']
        : [
            'steps = max(1, int(quotient))',
            'if (.not. abs(length/real(steps, dp) - h) < abs(length/real(steps + 1, dp) - h)) steps = steps + 1',
            'h = length/real(steps, dp)',
          ]),
    ]),
    'end subroutine steps_for',
    '',
  ];
}

/** A program in Fortran 2008 that does what a run does. */
export function fortranProgram(parts: ProgramParts): string {
  const { step, starter, width, size, constants, exact } = parts;
  const components = placesByComponent(parts).map(({ vector, index }) => {
    const name = step.vectors[vector] ?? '';
    return width === 1 ? name : `${name}(${index + 1})`;
  });
  const state = [...step.vectors, ...step.kept.map(({ name }) => name)];
  const routines = [
    ...rhsRoutine(parts, parts.rhsName, step.vectors, parts.rightHandSides),
    ...(parts.moved === null
      ? []
      : [
          "! directional derivative of the right-hand side along v, for the Jacobian in Newton's method",
          ...rhsRoutine(parts, `${parts.rhsName}_moved`, [...step.vectors, 'v'], parts.moved),
        ]),
    ...exactRoutine(parts, components),
    'subroutine begin()',
    ...indented([
      ...(parts.initial.some(({ kind }) => kind === 'each') ? ['integer :: j'] : []),
      ...parts.initial.flatMap(lineText),
    ]),
    'end subroutine begin',
    '',
    ...stepLines(parts, step),
    ...(starter === null ? [] : [...stepLines(parts, starter), ...keepLines(parts)]),
    ...runRoutines(parts),
    'function digits(x) result(text)',
    ...indented([
      'real(dp), intent(in) :: x',
      'character(len=30) :: text',
      "write (text, '(es25.16e3)') x",
      'text = adjustl(text)',
    ]),
    'end function digits',
    '',
    'subroutine row(n, h)',
    ...indented([
      'integer, intent(in) :: n',
      'real(dp), intent(in) :: h',
      `character(len=${60 + 30 * size}) :: line`,
      "write (line, '(i0)') n",
      "line = trim(line) // ',' // trim(digits(start + real(n, dp)*h))",
      ...components.map((name) => `line = trim(line) // ',' // trim(digits(${name}))`),
      "print '(a)', trim(line)",
    ]),
    'end subroutine row',
    '',
  ];
  const text = routines.join('\n');
  const lines = [
    ...headNotes(parts, './program', 'the Fortran library').map((line) => `! ${line}`.trimEnd()),
    '!',
    '! gfortran -std=f2008 -O2 -ffp-contract=off -o program program.f90',
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
      ...declared(state, width),
      'integer :: n, i, steps, status',
      `real(dp) :: h${exact === null ? '' : ', error, last_h, last_error'}`,
      `character(len=${60 + 30 * size}) :: line`,
      'character(len=60) :: text',
      ...mainLines(parts, components),
    ]),
    'contains',
    '',
    ...indented([...fortranHelpers(text), ...routines]),
    'end program main',
  ];
  return `${lines.flatMap(broken).join('\n')}\n`;
}
