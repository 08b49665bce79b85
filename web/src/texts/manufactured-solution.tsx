import { manufacture, type Problem, texSymbol } from '@schritt/core/notation';
import { Button, Input } from 'antd';
import { type ReactNode, useState } from 'react';
import { Tex } from '../math/tex.tsx';

/**
 * Offers to make a manufactured solution exact, where no exact one is known: a term is added to every right-hand side.
 */
export function ManufacturedSolution({
  problem,
  onMake,
}: {
  readonly problem: Problem;
  readonly onMake: (text: string) => void;
}): ReactNode {
  const [chosenSolutions, setSolutions] = useState<Readonly<Record<string, string>>>({});
  const [why, setWhy] = useState<string | null>(null);
  const make = (): void => {
    const made = manufacture(
      problem,
      problem.unknowns.map(({ name }) => ({ unknown: name, solution: chosenSolutions[name] ?? '' })),
    );
    setWhy(made.ok ? null : (made.errors[0]?.message ?? ''));
    if (made.ok) onMake(made.value);
  };
  return (
    <section className="manufactured-solution" aria-label="Manufactured solution">
      <h2 className="label">A known answer to test code against</h2>
      <p>
        No exact solution is given. Choose one: a term is added to the right-hand side so that it is exact.
      </p>
      {problem.unknowns.map(({ name }) => (
        <label key={name} className="chosen">
          <Tex tex={`${texSymbol(name)}(${texSymbol(problem.independent)}) =`} />
          <Input
            value={chosenSolutions[name] ?? ''}
            placeholder={`2 + sin(${problem.independent})`}
            aria-label={`Manufactured solution for ${name}`}
            onChange={(event) => setSolutions({ ...chosenSolutions, [name]: event.target.value })}
            onPressEnter={make}
          />
        </label>
      ))}
      {why !== null && <p className="wrong">{why}</p>}
      <Button
        onClick={make}
        disabled={problem.unknowns.some(({ name }) => (chosenSolutions[name] ?? '').trim() === '')}
      >
        Make it exact
      </Button>
    </section>
  );
}
