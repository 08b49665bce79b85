import { meaningsOf } from '../formula/expression.ts';
import { layOut } from './layout.ts';
import { lower } from './lowering.ts';
import type { Instruction, Program } from './program.ts';
import { rhsTangent, RhsTrees } from './rhs-tree.ts';
import { stateShape } from './state.ts';
import { registerTree, stepTangent } from './step-tree.ts';
import { method, problem } from '../test-texts.ts';

function kinds(program: Program): readonly Instruction['kind'][] {
  return program.instructions.map(({ kind }) => kind);
}

test('every call of f is an instruction of its own, in the order of the text', () => {
  const heun = lower(method('y[n+1] = y + h/2*(f(t, y) + f(t + h, y + h*f(t, y)))'));
  // f, f, y + h*f, f, the sum
  expect(kinds(heun)).toEqual(['rhs', 'rhs', 'combine', 'rhs', 'combine']);
  expect(heun.stages).toEqual([]);
  expect(heun.kept).toEqual([]);
});

test('a stage that is a bare call needs no combination; a constant is a scalar', () => {
  const program = lower(method('theta = 1/2\nk = f(t, y)\ny[n+1] = y + theta*h*k'));
  expect(kinds(program)).toEqual(['combine', 'rhs', 'combine']);
  expect(program.stages.map(({ name, shape }) => [name, shape])).toEqual([
    ['theta', 'scalar'],
    ['k', 'vector'],
  ]);
});

test('f[n] is evaluated once a step and kept, with all values down to the deepest', () => {
  const ab3 = lower(method('start with RK4\ny[n+1] = y + h/12*(23*f[n] + 5*f[n-2])'));
  expect(kinds(ab3)).toEqual(['rhs', 'combine']);
  expect(ab3.presentRhs).not.toBeNull();
  expect(ab3.kept.map(({ of, back }) => [of, back])).toEqual([
    ['f', 1],
    ['f', 2],
  ]);
  expect(ab3.depth).toBe(2);
});

test('values of y and of f are kept apart', () => {
  const { kept } = lower(method('start with RK4\ny[n+1] = y[n-1] + 2*h*f[n] + 0*h*f[n-1]'));
  expect(kept.map(({ of, back }) => `${of}${back}`).sort()).toEqual(['f1', 'y1']);
});

test('an implicit slope starts from 0, an implicit value from the present one', () => {
  const stage = lower(method('solve k = f(t + h/2, y + h/2*k)\ny[n+1] = y + h*k')).instructions[0];
  expect(stage).toMatchObject({ kind: 'solve', guess: 'zero', line: 'k' });
  const inner = lower(method('solve z = y + h/2*f(t + h/2, z)\ny[n+1] = 2*z - y')).instructions[0];
  expect(inner).toMatchObject({ kind: 'solve', guess: 'present', line: 'z' });
  const value = lower(method('solve y[n+1] = y + h*f(t + h, y[n+1])')).instructions[0];
  expect(value).toMatchObject({ kind: 'solve', guess: 'present', line: 'y[n+1]' });
});

test('derivatives of f are instructions of their order', () => {
  const taylor = lower(method("y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y) + h^3/6*f''(t, y)"));
  expect(taylor.instructions.flatMap((i) => (i.kind === 'derivative' ? [i.order] : []))).toEqual([1, 2]);
});

test('times of grid points are leaves of their own', () => {
  const program = lower(method('start with Euler\ny[n+1] = y[n-1] + (t[n+1] - t[n-1])*f(t, y)'));
  const last = program.instructions.at(-1);
  const leaves = last?.kind === 'combine' ? meaningsOf(last.value) : [];
  expect(leaves.flatMap((leaf) => (leaf.kind === 'time' ? [leaf.offset] : []))).toEqual([1, -1]);
});

test('the derivative along what moves leaves out what does not', () => {
  const [moving, still] = [registerTree(3), registerTree(4)];
  const product = {
    kind: 'binary',
    operator: '*',
    left: moving,
    right: still,
    at: { from: 0, to: 0 },
  } as const;
  expect(meaningsOf(stepTangent(product, (register) => register === 3))).toEqual([
    { kind: 'tangent', register: 3 },
    { kind: 'register', register: 4 },
  ]);
  expect(meaningsOf(stepTangent(product, () => false))).toEqual([]);
});

const FAMILY = problem(
  "u[i]' = c*(u[i-1] - 2*u[i] + u[i+1]) + i for i = 2..5\nc = 7\nu[1] = sin(t)\nu[6] = 2*u[5]\nu[i](0) = 0 for i = 2..5\n0 <= t <= 1",
);

test('a right-hand side at one element has its neighbours and edges put in', () => {
  const trees = new RhsTrees(FAMILY);
  const [block] = FAMILY.blocks;
  const at = (element: number): readonly string[] =>
    meaningsOf(trees.at(block!.rhs, block!, element)).map((leaf) =>
      leaf.kind === 'component'
        ? `u${leaf.place}`
        : leaf.kind === 'constant'
          ? String(leaf.value)
          : leaf.kind,
    );
  expect(at(1)).toEqual(['7', 'u0', 'u1', 'u2', '3']);
  // the edges: sin(t) below, 2*u[5] above
  expect(at(0)).toEqual(['7', 'time', 'u0', 'u1', '2']);
  expect(at(3)).toEqual(['7', 'u2', 'u3', 'u3', '5']);
});

test('a right-hand side at the running element has neighbours ahead and behind, and the index', () => {
  const [block] = FAMILY.blocks;
  const leaves = meaningsOf(new RhsTrees(FAMILY).running(block!.rhs, block!));
  expect(leaves.flatMap((leaf) => (leaf.kind === 'neighbour' ? [leaf.ahead] : []))).toEqual([-1, 0, 1]);
  expect(leaves.at(-1)).toEqual({ kind: 'position', from: 2 });
});

test('the motion of an edge value that holds an unknown is in the derivative', () => {
  const [block] = FAMILY.blocks;
  const tangent = rhsTangent(new RhsTrees(FAMILY).at(block!.rhs, block!, 3));
  const moving = meaningsOf(tangent).flatMap((leaf) =>
    leaf.kind === 'tangent' && leaf.of.kind === 'component' ? [leaf.of.place] : [],
  );
  expect(moving).toEqual([2, 3, 3]);
});

test('positions and velocities stand in vectors of their own', () => {
  const two = problem("q'' = -q\np'' = -4*p\nq(0) = 1\nq'(0) = 0\np(0) = 1\np'(0) = 0\n0 <= t <= 1");
  const program = lower(method('v[n+1] = v + h*a(t, x, v)\nx[n+1] = x + h*v[n+1]'));
  const layout = layOut(two, program);
  expect(layout.places).toEqual([
    [0, 2],
    [1, 3],
  ]);
  expect(layout.of.map(({ vector, index }) => `${vector}${index}`)).toEqual(['00', '10', '01', '11']);
  expect(layout.rated.map(({ block, offset }) => [block.name, offset])).toEqual([
    ["q'", 0],
    ["p'", 1],
  ]);
});

test('the state holds the components, what is kept, and five numbers of Newton', () => {
  const sway = problem("y' = -y\nz' = -z\ny(0) = 1\nz(0) = 1\n0 <= t <= 1");
  const program = lower(method('start with RK4\ny[n+1] = y + h/12*(23*f[n] - 16*f[n-1] + 5*f[n-2])'));
  expect(stateShape(sway, program, layOut(sway, program))).toEqual({
    size: 2,
    width: 2,
    kept: 2,
    newton: 6,
    length: 11,
  });
});
