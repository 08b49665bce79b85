import { indented } from './fortran-lines.ts';

function oneLineFunction(name: string, inputs: string, lines: readonly string[]): readonly string[] {
  return [
    `pure function ${name}(${inputs}) result(r)`,
    ...indented([`real(dp), intent(in) :: ${inputs}`, 'real(dp) :: r', ...lines]),
    `end function ${name}`,
    '',
  ];
}

const BELOW = ['r = aint(x)', 'if (r > x) r = r - 1.0d0'];
/** Elimination with partial pivoting; the order of its operations is that of a run. */
const ELIMINATE = [
  'subroutine eliminate(m, r, n, ok)',
  ...indented([
    'integer, intent(in) :: n',
    'real(dp), intent(inout) :: m(n*n), r(n)',
    'logical, intent(out) :: ok',
    'integer :: i, k, l, pivot',
    'real(dp) :: head, factor, other, total',
    'ok = .false.',
    'do i = 0, n - 1',
    '  pivot = i',
    '  do k = i + 1, n - 1',
    '    if (abs(m(k*n + i + 1)) > abs(m(pivot*n + i + 1))) pivot = k',
    '  end do',
    '  head = m(pivot*n + i + 1)',
    '  if (.not. abs(head) > 0.0d0 .or. .not. abs(head) <= huge(head)) return',
    '  if (pivot /= i) then',
    '    do k = i, n - 1',
    '      other = m(pivot*n + k + 1)',
    '      m(pivot*n + k + 1) = m(i*n + k + 1)',
    '      m(i*n + k + 1) = other',
    '    end do',
    '    other = r(pivot + 1)',
    '    r(pivot + 1) = r(i + 1)',
    '    r(i + 1) = other',
    '  end if',
    '  do k = i + 1, n - 1',
    '    factor = m(k*n + i + 1)/head',
    '    if (.not. abs(factor) > 0) cycle',
    '    do l = i + 1, n - 1',
    '      m(k*n + l + 1) = m(k*n + l + 1) - factor*m(i*n + l + 1)',
    '    end do',
    '    r(k + 1) = r(k + 1) - factor*r(i + 1)',
    '  end do',
    'end do',
    'do i = n - 1, 0, -1',
    '  total = r(i + 1)',
    '  do k = i + 1, n - 1',
    '    total = total - m(i*n + k + 1)*r(k + 1)',
    '  end do',
    '  r(i + 1) = total/m(i*n + i + 1)',
    'end do',
    'ok = .true.',
  ]),
  'end subroutine eliminate',
  '',
];

const HELPERS: readonly (readonly [RegExp, readonly string[]])[] = [
  [
    /\bsign_of\(/,
    oneLineFunction('sign_of', 'x', ['r = merge(1.0d0, merge(-1.0d0, x, x < 0.0d0), x > 0.0d0)']),
  ],
  [/\bwhole_below\(|\bremainder\(/, oneLineFunction('whole_below', 'x', BELOW)],
  [/\beliminate\(/, ELIMINATE],
  [/\bremainder\(/, oneLineFunction('remainder', 'x, y', ['r = x - y*whole_below(x/y)'])],
  [/\blog_2\(/, oneLineFunction('log_2', 'x', ['r = log(x)/log(2.0d0)'])],
  [/\bcube_root\(/, oneLineFunction('cube_root', 'x', ['r = sign(abs(x)**(1.0d0/3.0d0), x)'])],
];

/** The routines of their own that a program calls. */
export function fortranHelpers(text: string): readonly string[] {
  return HELPERS.flatMap(([is, own]) => (is.test(text) ? own : []));
}
