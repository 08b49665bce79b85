import type { ReactNode } from 'react';
import { NumberField } from '../controls/number-field.tsx';
import { Segments } from '../controls/segments.tsx';
import { TextArea } from '../controls/text-area.tsx';
import { TextField } from '../controls/text-field.tsx';
import { Tick } from '../controls/tick.tsx';
import { type HandoutChoices, HANDOUTS_OF, PAPERS } from './choice.ts';

interface Choosing {
  readonly handout: HandoutChoices;
  readonly change: (part: Partial<HandoutChoices>) => void;
}

function Variants({ handout, change }: Choosing): ReactNode {
  const { variants, sheets, seed } = handout;
  return (
    <>
      <label>
        <span>Numbers that differ from sheet to sheet</span>
        <TextField
          value={variants}
          placeholder="k in 0.2, 0.25, ..., 0.6; start in 1..5"
          onChange={(event) => change({ variants: event.target.value })}
        />
      </label>
      {variants.trim() !== '' && (
        <div className="taken-options">
          <label>
            sheets{' '}
            <NumberField
              min={1}
              max={500}
              isWhole
              value={sheets}
              onChange={(value) => change({ sheets: value ?? 1 })}
            />
          </label>
          <label>
            seed{' '}
            <NumberField
              min={0}
              max={2 ** 31}
              isWhole
              value={seed}
              onChange={(value) => change({ seed: value ?? 1 })}
            />
          </label>
          <span className="quiet">the same seed gives the same sheets again</span>
        </div>
      )}
    </>
  );
}

/** What a teacher chooses for a sheet: its task, its blanks, its variants, and whether it is the solution. */
export function HandoutOptions({ handout, change }: Choosing): ReactNode {
  const { of, task, blanks, coefficients, digits, room, paper, solved, as } = handout;
  return (
    <div className="handout-options">
      <div className="taken-options">
        <Segments
          label="Table of the handout"
          value={of}
          options={[...HANDOUTS_OF]}
          onChange={(value) => change({ of: value })}
        />
        <Segments
          label="Sheet or solution"
          value={solved ? 'solution' : 'sheet'}
          options={[
            { value: 'sheet', label: 'Sheet' },
            { value: 'solution', label: 'Solution' },
          ]}
          onChange={(value) => change({ solved: value === 'solution' })}
        />
        {as !== 'xlsx' && (
          <Segments
            label="Paper"
            value={paper}
            options={[...PAPERS]}
            onChange={(value) => change({ paper: value })}
          />
        )}
      </div>
      <label>
        <span>Task, in your own words</span>
        <TextArea
          least={2}
          most={8}
          maxLength={5000}
          value={task}
          onChange={(event) => change({ task: event.target.value })}
        />
      </label>
      <label>
        <span>Blanks</span>
        <TextField
          value={blanks}
          placeholder="columns k1, k2; rows after 2; cells 3 k1, 4 error"
          onChange={(event) => change({ blanks: event.target.value })}
        />
      </label>
      <div className="taken-options">
        <label>
          digits asked for{' '}
          <NumberField
            min={1}
            max={17}
            isWhole
            value={digits}
            onChange={(value) => change({ digits: value ?? 6 })}
          />
        </label>
        <Tick isTicked={coefficients} onChange={(ticked) => change({ coefficients: ticked })}>
          leave out the numbers of the formula
        </Tick>
        {as !== 'xlsx' && (
          <Tick isTicked={room} onChange={(ticked) => change({ room: ticked })}>
            room for the picture
          </Tick>
        )}
      </div>
      <Variants handout={handout} change={change} />
    </div>
  );
}
