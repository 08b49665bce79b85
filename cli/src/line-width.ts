/** Characters of a line: those of the terminal, or what COLUMNS says; no end where the output is neither. */
export function lineWidth(): number {
  const asked = Number(process.env['COLUMNS']);
  if (Number.isSafeInteger(asked) && asked > 0) return asked;
  return process.stdout.isTTY ? process.stdout.columns : Infinity;
}
