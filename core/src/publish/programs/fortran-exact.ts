import { indented, lineText } from './fortran-lines.ts';
import type { ProgramParts } from './language.ts';

/** Routines of the exact solution and of the error; none where it is not known. */
export function exactRoutine(
  { size, exact }: ProgramParts,
  components: readonly string[],
): readonly string[] {
  if (exact === null) return [];
  const each = exact.some(({ kind }) => kind === 'each') ? ['integer :: j'] : [];
  const form = size === 1 ? 'e' : `e(${size})`;
  return [
    'subroutine exact(t, e)',
    ...indented([
      'real(dp), intent(in) :: t',
      `real(dp), intent(out) :: ${form}`,
      ...each,
      ...exact.flatMap(lineText),
    ]),
    'end subroutine exact',
    '',
    'function error_at(t) result(r)',
    ...indented([
      'real(dp), intent(in) :: t',
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
