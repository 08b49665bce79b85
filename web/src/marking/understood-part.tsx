import type { ColumnRole, ReadingChoice } from '@schritt/core/marking';
import { counted } from '@schritt/core/text';
import { Collapse, InputNumber, Select, Table } from 'antd';
import type { ReactNode } from 'react';
import type { Submissions, UnderstoodFile } from '../worker/marking-answers.ts';
import type { MarkingSession } from './marking-session.ts';

interface RoleOption {
  readonly value: string;
  readonly label: string;
  readonly role: ColumnRole;
}

/** What a column can be said to hold. */
function roleOptions(
  { components, stages }: Submissions,
  title: string | null,
  at: number,
): readonly RoleOption[] {
  const student = title?.trim() || `column ${at + 1}`;
  return [
    { value: 'n', label: 'n', role: { kind: 'n' } },
    { value: 't', label: 'time', role: { kind: 't' } },
    ...components.map((name, place): RoleOption => ({
      value: `component ${place}`,
      label: `values of ${name}`,
      role: { kind: 'component', place },
    })),
    ...stages.map((name, place): RoleOption => ({
      value: `stage ${place}`,
      label: `stage ${name}`,
      role: { kind: 'stage', place },
    })),
    ...components.map((name, place): RoleOption => ({
      value: `student ${place}`,
      label: components.length > 1 ? `a student’s ${name}` : 'a student',
      role: { kind: 'student', name: student, place },
    })),
    { value: 'other', label: 'not marked', role: { kind: 'other' } },
  ];
}

function roleKey(role: ColumnRole): string {
  return 'place' in role ? `${role.kind} ${role.place}` : role.kind;
}

/** Columns of a file that are shown; of more the first. */
const MAX_COLUMNS = 60;

/** One file: what each column was taken for, to be corrected, with its first cells. */
function UnderstoodTable({
  file,
  understood,
  onChange,
}: {
  readonly file: UnderstoodFile;
  readonly understood: Submissions;
  readonly onChange: (roles: readonly ColumnRole[]) => void;
}): ReactNode {
  const roles = file.columns.map(({ role }) => role);
  return (
    <Table
      size="small"
      pagination={false}
      className="marking-understood"
      rowKey="at"
      scroll={{ y: 240 }}
      dataSource={file.columns.slice(0, MAX_COLUMNS).map((column, at) => ({ ...column, at }))}
      columns={[
        { title: 'Column', width: 110, render: (_, { title, at }) => title ?? `column ${at + 1}` },
        {
          title: 'Holds',
          width: 150,
          render: (_, { title, role, at }) => {
            const options = roleOptions(understood, title, at);
            return (
              <Select
                size="small"
                popupMatchSelectWidth={false}
                aria-label={`What ${title ?? `column ${at + 1}`} holds`}
                value={roleKey(role)}
                options={options.map(({ value, label }) => ({ value, label }))}
                onChange={(value) => {
                  const chosen = options.find((option) => option.value === value);
                  if (chosen !== undefined) onChange(roles.with(at, chosen.role));
                }}
              />
            );
          },
        },
        {
          title: 'First cells',
          render: (_, { cells }) => cells.map((cell) => cell ?? '–').join('  '),
        },
      ]}
    />
  );
}

/** How numbers and rows were read, to be corrected. */
function Reading({ session: { reading }, change }: Pick<UnderstoodProps, 'session' | 'change'>): ReactNode {
  const vary = (part: Partial<ReadingChoice>): void => change({ reading: { ...reading, ...part } });
  return (
    <div className="marking-buttons">
      <label>
        decimal sign{' '}
        <Select
          size="small"
          aria-label="Decimal sign"
          value={reading.decimalSign ?? 'auto'}
          options={[
            { value: 'auto', label: 'auto' },
            { value: '.', label: 'point' },
            { value: ',', label: 'comma' },
          ]}
          onChange={(value) => vary({ decimalSign: value === '.' || value === ',' ? value : null })}
        />
      </label>
      <label>
        n of the first row{' '}
        <InputNumber
          size="small"
          min={0}
          max={1_000_000}
          precision={0}
          placeholder="auto"
          value={reading.firstRow}
          onChange={(firstRow) => vary({ firstRow })}
        />
      </label>
      <label>
        decimal places kept{' '}
        <InputNumber
          size="small"
          min={0}
          max={12}
          precision={0}
          placeholder="auto"
          value={reading.decimals}
          onChange={(decimals) => vary({ decimals })}
        />
      </label>
    </div>
  );
}

interface UnderstoodProps {
  readonly understood: Submissions;
  readonly session: MarkingSession;
  readonly change: (part: Partial<MarkingSession>) => void;
}

/** How what was handed in was understood: one table for all files of one form, with columns that can be corrected. */
export function UnderstoodPart({ understood, session, change }: UnderstoodProps): ReactNode {
  const forms = [...new Map(understood.files.map((file) => [file.form, file])).values()];
  const unread = understood.files.reduce((sum, file) => sum + file.unread, 0);
  return (
    <Collapse
      size="small"
      items={[
        {
          key: 'understood',
          label: `${counted(understood.submissions.length, 'student')} in ${counted(understood.files.length, 'file')}${unread === 0 ? '' : `; ${counted(unread, 'cell')} without a number`}`,
          children: [
            <Reading key="reading" session={session} change={change} />,
            ...forms.map((file) => (
              <section key={file.form} aria-label={`Columns of ${file.name}`}>
                <p className="quiet">
                  {file.name}: {counted(file.rows, 'row')}, decimal{' '}
                  {file.decimalSign === ',' ? 'comma' : 'point'}
                  {forms.length < understood.files.length ? '; the same for files with these columns' : ''}
                </p>
                <UnderstoodTable
                  file={file}
                  understood={understood}
                  onChange={(roles) => change({ roles: { ...session.roles, [file.form]: roles } })}
                />
              </section>
            )),
          ],
        },
      ]}
    />
  );
}
