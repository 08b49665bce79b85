import { indented, lineText, unread } from './fortran-lines.ts';
import type { ProgramParts } from './language.ts';

/** Routines of the exact solution and of the error; none where it is not known. */
export function exactRoutine(
  { size, width, step, exact }: ProgramParts,
  components: readonly string[],
): readonly string[] {
  if (exact === null) return [];
  const each = exact.some(({ kind }) => kind === 'each') ? ['integer :: j'] : [];
  const lines = exact.flatMap(lineText);
  const form = size === 1 ? 'e' : `e(${size})`;
  return [
    'subroutine exact(t, e)',
    ...indented([
      'real(dp), intent(in) :: t',
      `real(dp), intent(out) :: ${form}`,
      ...each,
      ...unread(['t'], lines),
      ...lines,
    ]),
    'end subroutine exact',
    '',
    `function error_at(t, ${step.vectors.join(', ')}) result(r)`,
    ...indented([
      `real(dp), intent(in) :: t, ${step.vectors.map((name) => (width === 1 ? name : `${name}(${width})`)).join(', ')}`,
      `real(dp) :: r, ${form}`,
      'call exact(t, e)',
      ...(size === 1
        ? [`r = abs(${components[0] ?? ''} - e)`]
        : [
            'r = 0.0d0',
            ...components.map((name, p) => `r = r + (${name} - e(${p + 1}))*(${name} - e(${p + 1}))`),
            'r = sqrt(r)',
          ]),
    ]),
    'end function error_at',
    '',
  ];
}
