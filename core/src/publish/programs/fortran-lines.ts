import type { Condition, Line } from './language.ts';

/** Longest line that is written; the standard has 132. */
const LONGEST = 120;

/** A long line is gone on with in the next. */
export function broken(line: string): readonly string[] {
  if (line.length <= LONGEST || line.trimStart().startsWith('!')) return [line.slice(0, 132)];
  const indent = line.length - line.trimStart().length;
  const at = Math.max(line.lastIndexOf(' ', LONGEST), line.lastIndexOf('*', LONGEST), indent + 40);
  return [`${line.slice(0, at)}&`, ...broken(`${' '.repeat(indent + 2)}&${line.slice(at)}`)];
}

/** Lines that stand further in. */
export function indented(lines: readonly string[]): readonly string[] {
  return lines.map((line) => (line === '' ? '' : `  ${line}`));
}

function holds({ left, relation, right }: Condition): string {
  return `${left} ${relation} ${right}`;
}

/** A line of a program in Fortran. */
export function lineText(line: Line): readonly string[] {
  switch (line.kind) {
    case 'set':
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
        `call solve(matrix, right, ${line.unknowns}, ok)`,
        `if (.not. ok) error stop 'Newton''s method meets singular equations'`,
      ];
  }
}
