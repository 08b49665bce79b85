import { MOST_DIGITS, RUNG_COLUMN_LABELS, RUNG_COLUMNS } from '@schritt/core/document';
import { Checkbox, Input, InputNumber, Segmented, Select } from 'antd';
import type { ReactNode } from 'react';
import { type ExportSettings, INKS, PLOTS_OF, SIZES } from './export-settings.ts';

export interface Choosing {
  readonly choice: ExportSettings;
  readonly change: (part: Partial<ExportSettings>) => void;
}

function PlotOptions({ choice, change }: Choosing): ReactNode {
  const { plot, size, ink, plotAs, scale } = choice;
  return (
    <>
      <Segmented
        aria-label="Plot"
        value={plot}
        options={[...PLOTS_OF]}
        onChange={(value) => change({ plot: value })}
      />
      <Segmented
        aria-label="Size"
        value={size}
        options={[...SIZES]}
        onChange={(value) => change({ size: value })}
      />
      <Segmented
        aria-label="Colours"
        value={ink}
        options={[...INKS]}
        onChange={(value) => change({ ink: value })}
      />
      {plotAs === 'png' && (
        <label>
          scale factor{' '}
          <InputNumber
            size="small"
            min={1}
            max={4}
            precision={0}
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
  const { what, table, digits, columns, every, mark, comma, part, worked, plotAs } = choice;
  const isTable = what === 'rungs' || what === 'cost' || what === 'comparison' || what === 'rows';
  return (
    <div className="export-options">
      {what === 'plot' && <PlotOptions choice={choice} change={change} />}
      {table !== 'csv' && (what === 'rungs' || what === 'rows') && (
        <label>
          digits{' '}
          <InputNumber
            size="small"
            min={1}
            max={MOST_DIGITS}
            placeholder={what === 'rows' ? 'all' : '4'}
            value={digits}
            onChange={(value) => change({ digits: value })}
          />
        </label>
      )}
      {what === 'rungs' && (
        <Select
          mode="multiple"
          size="small"
          className="export-columns"
          aria-label="Columns of the table"
          popupMatchSelectWidth={false}
          value={[...choice.rungColumns]}
          options={RUNG_COLUMNS.map((value) => ({ value, label: RUNG_COLUMN_LABELS[value] }))}
          onChange={(chosen) =>
            change({ rungColumns: RUNG_COLUMNS.filter((column) => chosen.includes(column)) })
          }
        />
      )}
      {what === 'rows' && (
        <>
          <Input
            size="small"
            className="export-columns"
            aria-label="Columns"
            placeholder="all columns, or names: y, k1"
            value={columns}
            onChange={(event) => change({ columns: event.target.value })}
          />
          <label>
            every{' '}
            <InputNumber
              size="small"
              min={1}
              precision={0}
              value={every}
              onChange={(value) => change({ every: value ?? 1 })}
            />{' '}
            steps per row
          </label>
        </>
      )}
      {isTable && table === 'csv' && (
        <Checkbox checked={mark} onChange={(event) => change({ mark: event.target.checked })}>
          UTF-8 BOM (for spreadsheet programs)
        </Checkbox>
      )}
      {isTable && table === 'csv' && (
        <Checkbox checked={comma} onChange={(event) => change({ comma: event.target.checked })}>
          semicolons and decimal commas
        </Checkbox>
      )}
      {what === 'formulas' && (
        <Checkbox checked={worked} onChange={(event) => change({ worked: event.target.checked })}>
          with the chosen step worked out
        </Checkbox>
      )}
      {((isTable && (table === 'tex' || table === 'html')) ||
        what === 'formulas' ||
        (what === 'plot' && plotAs === 'tikz')) && (
        <Checkbox checked={part} onChange={(event) => change({ part: event.target.checked })}>
          fragment only
        </Checkbox>
      )}
      {what === 'notebook' && (
        <span className="quiet">statement, table, program in Python and plots, for Jupyter</span>
      )}
      {what === 'sheet' && (
        <span className="quiet">
          all step sizes of the method with live formulas: change h or a parameter and the sheet follows
        </span>
      )}
    </div>
  );
}
