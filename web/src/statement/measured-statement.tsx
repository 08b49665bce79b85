import { LONGEST_MEASURED, type MeasuredOf, readMeasured } from '@schritt/core/document';
import { counted, Refusal, short } from '@schritt/core/text';
import { Button, Input, Upload } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';

interface MeasuredStatementProps {
  /** Undefined where there are none. */
  readonly measured: string | undefined;
  readonly of: MeasuredOf;
  readonly onChange: (measured: string | undefined) => void;
}

/** Errors that are reported at a time. */
const TOLD = 3;

/** The text of a file of data: of a spreadsheet its first sheet with numbers. */
async function textOfFile(
  file: File,
): Promise<{ readonly ok: true; readonly text: string } | { readonly ok: false; readonly why: string }> {
  const format = /\.(xlsx|ods)$/i.exec(file.name)?.[1]?.toLowerCase();
  if (format !== 'xlsx' && format !== 'ods') return { ok: true, text: await file.text() };
  const { sheetText } = await import('@schritt/core/sheets');
  try {
    return { ok: true, text: await sheetText(new Uint8Array(await file.arrayBuffer()), format) };
  } catch (thrown) {
    if (thrown instanceof Refusal) return { ok: false, why: thrown.message };
    throw thrown;
  }
}

/** Measured points to draw beside the solution: columns pasted from a spreadsheet, or a file of CSV or a spreadsheet. */
export function MeasuredStatement({ measured, of, onChange }: MeasuredStatementProps): ReactNode {
  const { components } = of;
  const [open, setOpen] = useState(false);
  const reading = useMemo(() => readMeasured(measured ?? '', of), [measured, of]);
  const points = reading.ok ? reading.series.reduce((sum, { points: own }) => sum + own.length, 0) : 0;
  const change = (text: string): void => onChange(text.trim() === '' ? undefined : text);
  const [fault, setFault] = useState<string | null>(null);
  const load = async (file: File): Promise<void> => {
    const read = await textOfFile(file);
    setFault(read.ok ? null : read.why);
    if (read.ok) change(read.text.slice(0, LONGEST_MEASURED));
  };
  if (!open)
    return measured === undefined ? (
      <Button size="small" type="text" onClick={() => setOpen(true)}>
        Add data
      </Button>
    ) : (
      <p className="measured quiet">
        {reading.ok ? counted(points, 'data point') : 'data that cannot be read'}{' '}
        <Button type="link" size="small" onClick={() => setOpen(true)}>
          edit
        </Button>
      </p>
    );
  return (
    <section className="measured" aria-label="Data">
      <Input.TextArea
        autoFocus
        aria-label="Data in columns"
        placeholder={`t, ${components.slice(0, 3).join(', ')}\n0, ...`}
        maxLength={LONGEST_MEASURED}
        value={measured ?? ''}
        onChange={(event) => change(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') setOpen(false);
        }}
        autoSize={{ minRows: 3, maxRows: 10 }}
      />
      {reading.ok ? (
        <p className="quiet">
          Columns as copied from a spreadsheet: time, then{' '}
          {components.length === 1 ? components[0] : 'one column per component'}; {counted(points, 'point')}.
          {reading.spacing !== null &&
            ` One column: values of ${reading.series[0]?.component ?? ''} every ${short(reading.spacing, 6)}, from the start to the end of the interval.`}
        </p>
      ) : (
        <ul className="wrong">
          {reading.errors.slice(0, TOLD).map(({ line, column, message }) => (
            <li key={`${line}:${column}`}>
              line {line}, column {column}: {message}
            </li>
          ))}
        </ul>
      )}
      {fault !== null && (
        <p className="wrong" role="status">
          {fault}
        </p>
      )}
      <div className="measured-buttons">
        <Upload
          accept=".csv,.tsv,.txt,.xlsx,.ods,text/csv,text/plain"
          aria-label="Data file"
          showUploadList={false}
          beforeUpload={(file) => {
            void load(file);
            return false;
          }}
        >
          <Button size="small">From file</Button>
        </Upload>
        {measured !== undefined && (
          <Button size="small" onClick={() => onChange(undefined)}>
            Remove
          </Button>
        )}
        <Button size="small" type="primary" onClick={() => setOpen(false)}>
          Done
        </Button>
      </div>
    </section>
  );
}
