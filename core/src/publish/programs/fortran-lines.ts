import { Refusal } from '../../text/refusal.ts';
import type { Condition, CodeLine } from './language.ts';

/** Longest line that is written, and of a comment; the standard has 132. */
const MAX_LINE = 120;
const MAX_COMMENT = 132;
/** Lines that may continue a statement (ISO/IEC 1539-1:2010, 3.3.2.4). */
const MAX_CONTINUED = 255;

/**
 * A statement in lines of Fortran: a long one is continued.
 *
 * @throws Refusal for one that takes more lines than the standard allows
 */
export function broken(line: string): readonly string[] {
  const indent = line.length - line.trimStart().length;
  if (line.length <= MAX_LINE || line[indent] === '!') return [line.slice(0, MAX_COMMENT)];
  const lines: string[] = [];
  let rest = line;
  while (rest.length > MAX_LINE) {
    const at = Math.max(rest.lastIndexOf(' ', MAX_LINE), rest.lastIndexOf('*', MAX_LINE), indent + 40);
    lines.push(`${rest.slice(0, at)}&`);
    rest = `${' '.repeat(indent + 2)}&${rest.slice(at)}`;
  }
  if (lines.length > MAX_CONTINUED)
    throw new Refusal(
      'size',
      `a statement of this program takes more than ${MAX_CONTINUED} lines of Fortran`,
    );
  return [...lines, rest];
}

/** Lines that are further in. */
export function indented(lines: readonly string[]): readonly string[] {
  return lines.map((line) => (line === '' ? '' : `  ${line}`));
}

function holds({ left, relation, right }: Condition): string {
  return `${left} ${relation} ${right}`;
}

/** A line of a program in Fortran. */
export function lineText(line: CodeLine): readonly string[] {
  switch (line.kind) {
    case 'set':
    case 'vector':
      return [`${line.to} = ${line.value}`];
    case 'routine':
      return [`call ${line.name}(${[...line.inputs, line.into].join(', ')})`];
    case 'each':
      return [
        `do ${line.counter ?? 'j'} = ${line.from}, ${line.below - 1}`,
        ...indented(line.body.flatMap(lineText)),
        'end do',
      ];
    case 'repeat':
      return [
        'round = 0',
        'do',
        ...indented(['round = round + 1', ...line.body.flatMap(lineText)]),
        'end do',
      ];
    case 'leave':
      return [`if (${line.when.map(holds).join(' .and. ')}) exit`];
    case 'fail':
      return [`if (.not. ${holds(line.unless)}) error stop '${line.message.replaceAll("'", "''")}'`];
    case 'solve':
      return [
        `call eliminate(matrix, right, ${line.unknowns}, ok)`,
        `if (.not. ok) error stop 'Newton''s method: singular Jacobian'`,
      ];
  }
}

/** Lines that keep a compiler from warning of arguments that these lines do not read. */
export function unread(names: readonly string[], lines: readonly string[]): readonly string[] {
  const text = lines.join('\n');
  return names
    .filter((name) => !new RegExp(`\\b${name}\\b`).test(text))
    .flatMap((name) => [`associate (unused => ${name})`, 'end associate']);
}
