// Sees to it that programs of Debian's packages are there.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

/**
 * Installs packages unless all their programs are there.
 *
 * @param programs paths of programs, or names of programs in /usr/bin
 * @param packages what holds them
 */
export function debian(programs, packages) {
  const isThere = (program) => existsSync(program.includes('/') ? program : `/usr/bin/${program}`);
  if (programs.every(isThere)) return;
  if (process.getuid?.() !== 0) {
    console.error(
      `The tests need ${programs.join(', ')}. Install: sudo apt-get install ${packages.join(' ')}`,
    );
    process.exit(1);
  }
  console.log(`Installing ${packages.join(', ')} ...`);
  for (const args of [['update'], ['install', '-y', '--no-install-recommends', ...packages]]) {
    const { status } = spawnSync('apt-get', args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
    if (status !== 0) {
      console.error(`${packages.join(' ')} could not be installed; install them by hand.`);
      process.exit(1);
    }
  }
}

/** What the tests of written programs and tables are compiled, run and set with. */
export function compilers() {
  debian(['gcc'], ['gcc', 'libc6-dev']);
  debian(['redis-server', '/usr/sbin/nginx', 'openssl'], ['redis-server', 'nginx-light', 'openssl']);
  debian(['gfortran', 'octave-cli'], ['gfortran', 'octave']);
  debian(
    ['pdflatex', '/usr/share/texlive/texmf-dist/tex/latex/pgfplots/pgfplots.sty'],
    ['texlive-latex-base', 'texlive-latex-recommended', 'texlive-fonts-recommended', 'texlive-pictures'],
  );
  if (spawnSync('python3', ['--version']).status !== 0) debian(['python3'], ['python3-minimal']);
}

/** Two more browsers' engines, in which the tests of numbers and of the page run. */
export function engines() {
  debian(['firefox-esr', 'jsc'], ['firefox-esr', 'libjavascriptcoregtk-4.0-bin']);
}
