import { parseChoices, repeatedSheets } from '@schritt/core/document';
import { attempt } from '@schritt/core/text';
import { Checkbox, Input, InputNumber, Segmented } from 'antd';
import type { ReactNode } from 'react';
import { type HandoutSettings, HANDOUTS_OF, PAPERS } from './export-settings.ts';

interface Choosing {
  readonly handout: HandoutSettings;
  readonly change: (part: Partial<HandoutSettings>) => void;
}

/** Other numbers for every student. */
export type VariantSettings = Pick<HandoutSettings, 'variants' | 'sheets' | 'seed'>;

/** Other numbers for every student: lists of values, how many, the seed. */
export function Variants({
  value: { variants, sheets, seed },
  change,
}: {
  readonly value: VariantSettings;
  readonly change: (part: Partial<VariantSettings>) => void;
}): ReactNode {
  const read = attempt(() => repeatedSheets(parseChoices(variants), sheets));
  const repeated = read.ok ? read.value : read.refusal.message;
  return (
    <>
      <label>
        <span>Individual parameters</span>
        <Input
          value={variants}
          placeholder="k in 0.2, 0.25, ..., 0.6; start in 1..5"
          onChange={(event) => change({ variants: event.target.value })}
        />
      </label>
      {variants.trim() !== '' && (
        <div className="export-options">
          <label>
            variants{' '}
            <InputNumber
              size="small"
              min={1}
              max={500}
              precision={0}
              value={sheets}
              onChange={(value) => change({ sheets: value ?? 1 })}
            />
          </label>
          <label>
            seed{' '}
            <InputNumber
              size="small"
              min={0}
              max={2 ** 31}
              precision={0}
              value={seed}
              onChange={(value) => change({ seed: value ?? 1 })}
            />
          </label>
          <span className="quiet">the same seed gives the same variants</span>
        </div>
      )}
      {repeated !== null && (
        <p className="wrong" role="status">
          {repeated}
        </p>
      )}
    </>
  );
}

/** What a teacher chooses for a sheet: its task, its blanks, its variants, and whether it is the solution. */
export function HandoutOptions({ handout, change }: Choosing): ReactNode {
  const { of, task, blanks, coefficients, digits, room, paper, solved, as } = handout;
  return (
    <div className="handout-options">
      <div className="export-options">
        <Segmented
          aria-label="Table of the handout"
          value={of}
          options={[...HANDOUTS_OF]}
          onChange={(value) => change({ of: value })}
        />
        <Segmented
          aria-label="Worksheet or answer key"
          value={solved ? 'solution' : 'sheet'}
          options={[
            { value: 'sheet', label: 'Worksheet' },
            { value: 'solution', label: 'Answer key' },
          ]}
          onChange={(value) => change({ solved: value === 'solution' })}
        />
        {as !== 'xlsx' && (
          <Segmented
            aria-label="Paper"
            value={paper}
            options={[...PAPERS]}
            onChange={(value) => change({ paper: value })}
          />
        )}
      </div>
      <label>
        <span>Instructions</span>
        <Input.TextArea
          maxLength={5000}
          value={task}
          onChange={(event) => change({ task: event.target.value })}
          autoSize={{ minRows: 2, maxRows: 8 }}
        />
      </label>
      <label>
        <span>Blanks</span>
        <Input
          value={blanks}
          placeholder="columns k1, k2; rows after 2; cells 3 k1, 4 error (of a run: by n)"
          onChange={(event) => change({ blanks: event.target.value })}
        />
      </label>
      <div className="export-options">
        <label>
          digits required{' '}
          <InputNumber
            size="small"
            min={1}
            max={17}
            precision={0}
            value={digits}
            onChange={(value) => change({ digits: value ?? 6 })}
          />
        </label>
        <Checkbox checked={coefficients} onChange={(event) => change({ coefficients: event.target.checked })}>
          hide coefficients
        </Checkbox>
        {as !== 'xlsx' && (
          <Checkbox checked={room} onChange={(event) => change({ room: event.target.checked })}>
            space for plot
          </Checkbox>
        )}
      </div>
      <Variants value={handout} change={change} />
    </div>
  );
}
