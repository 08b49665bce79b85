import type { ReactNode } from 'react';
import { NumberField } from '../controls/number-field.tsx';
import { Segments } from '../controls/segments.tsx';
import { TextField } from '../controls/text-field.tsx';
import { Tick } from '../controls/tick.tsx';
import { type Choice, INKS, PICTURES_OF, SIZES } from './choice.ts';

export interface Choosing {
  readonly choice: Choice;
  readonly change: (part: Partial<Choice>) => void;
}

function PictureOptions({ choice, change }: Choosing): ReactNode {
  const { picture, size, ink, pictureAs, scale } = choice;
  return (
    <>
      <Segments
        label="Picture"
        value={picture}
        options={[...PICTURES_OF]}
        onChange={(value) => change({ picture: value })}
      />
      <Segments
        label="Size"
        value={size}
        options={[...SIZES]}
        onChange={(value) => change({ size: value })}
      />
      <Segments label="Ink" value={ink} options={[...INKS]} onChange={(value) => change({ ink: value })} />
      {pictureAs === 'png' && (
        <label>
          times as large{' '}
          <NumberField
            min={1}
            max={4}
            isWhole
            value={scale}
            onChange={(value) => change({ scale: value ?? 1 })}
          />
        </label>
      )}
    </>
  );
}

/** What a kind can be told besides its format; a handout has options of its own. */
export function Options({ choice, change }: Choosing): ReactNode {
  const { what, table, digits, columns, every, mark, part, worked } = choice;
  const isTable = what === 'rungs' || what === 'cost' || what === 'comparison' || what === 'rows';
  return (
    <div className="taken-options">
      {what === 'picture' && <PictureOptions choice={choice} change={change} />}
      {table !== 'csv' && (what === 'rungs' || what === 'rows') && (
        <label>
          digits{' '}
          <NumberField
            min={1}
            max={17}
            placeholder={what === 'rows' ? 'all' : '4'}
            value={digits}
            onChange={(value) => change({ digits: value })}
          />
        </label>
      )}
      {what === 'rows' && (
        <>
          <TextField
            size="small"
            className="taken-columns"
            aria-label="Columns"
            placeholder="all columns, or names: y, k1"
            value={columns}
            onChange={(event) => change({ columns: event.target.value })}
          />
          <label>
            every{' '}
            <NumberField min={1} isWhole value={every} onChange={(value) => change({ every: value ?? 1 })} />{' '}
            steps a row
          </label>
        </>
      )}
      {isTable && table === 'csv' && (
        <Tick isTicked={mark} onChange={(ticked) => change({ mark: ticked })}>
          byte order mark
        </Tick>
      )}
      {what === 'formulas' && (
        <Tick isTicked={worked} onChange={(ticked) => change({ worked: ticked })}>
          the chosen step worked out
        </Tick>
      )}
      {((isTable && (table === 'tex' || table === 'html')) || what === 'formulas') && (
        <Tick isTicked={part} onChange={(ticked) => change({ part: ticked })}>
          to be put into a document
        </Tick>
      )}
      {what === 'sheet' && (
        <span className="quiet">
          the method over the whole ladder, with live formulas: change h or a parameter and all follows
        </span>
      )}
    </div>
  );
}
