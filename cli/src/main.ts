import tab from '@bomb.sh/tab/commander';
import { program } from './program.ts';

/** Runs the terminal program with all commands that it has by now, and completion for bash, zsh and others. */
export async function main(): Promise<void> {
  // schritt complete bash
  tab(program);
  await program.parseAsync();
}

export { program };
