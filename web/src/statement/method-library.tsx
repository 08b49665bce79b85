import { isImplicit, LIBRARY, methodTex, parseMethod } from '@schritt/core/notation';
import { App, Select } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';
import { loadEntry } from '../api/client.ts';
import { useEntries } from '../api/use-entries.ts';
import { Tex } from '../math/tex.tsx';

/** Title and text of a method of the list, or of those that come with the program. */
async function textOf(key: string): Promise<{ readonly title: string; readonly text: string }> {
  return LIBRARY.find(({ title }) => title === key) ?? (await loadEntry('method', key)).document;
}

/** A method as the list shows it. */
export interface ListedMethod {
  readonly value: string;
  readonly label: string;
  /** Its last formula as TeX; null of a text that cannot be read. */
  readonly formula: string | null;
  /** What kind of formula it is, and its order where that is known. */
  readonly told: string;
}

/** What a list tells of a method: its order, if it is one of the library, and what kind of formula it is. */
export function listedMethod(value: string, title: string, text: string): ListedMethod {
  const reading = parseMethod(text);
  if (!reading.ok) return { value, label: title, formula: null, told: '' };
  const method = reading.value;
  const known = LIBRARY.find((one) => one.title === title && one.text === text);
  const kinds = [
    known === undefined ? '' : `order ${known.order}`,
    isImplicit(method) ? 'implicit' : 'explicit',
    method.depth > 0 ? `${method.depth + 1} steps` : 'one step',
    method.form === 'second order' ? "for x'' = a" : '',
  ];
  return {
    value,
    label: title,
    formula: methodTex(method).findLast((line) => line.includes('_{n+1} =')) ?? null,
    told: kinds.filter((kind) => kind !== '').join(', '),
  };
}

/** Longest formula that a row of the list has room for. */
const LONGEST = 90;

/** The methods that can be taken into a study, in a list that is searched by title and kind. */
export function MethodLibrary({
  onTake,
}: {
  readonly onTake: (title: string, text: string) => void;
}): ReactNode {
  // a page that is only shown has no list: then the methods that come with the program
  const [isOpened, setOpened] = useState(false);
  const { rows } = useEntries('method', 'list', isOpened);
  const { message } = App.useApp();
  const options = useMemo((): readonly ListedMethod[] => {
    if (!isOpened) return [];
    return rows === null
      ? LIBRARY.map(({ title, text }) => listedMethod(title, title, text))
      : rows.map(({ id, title, excerpt }) => listedMethod(id, title, excerpt));
  }, [isOpened, rows]);
  return (
    <Select<string, ListedMethod>
      size="small"
      variant="borderless"
      className="from-library"
      showSearch={{
        filterOption: (sought, option) =>
          sought
            .toLowerCase()
            .split(/\s+/)
            .every((word) => `${option?.label ?? ''} ${option?.told ?? ''}`.toLowerCase().includes(word)),
      }}
      placeholder="+ from the library"
      aria-label="Take a method from the library"
      value={null}
      onOpenChange={(open) => {
        if (open) setOpened(true);
      }}
      listHeight={340}
      listItemHeight={44}
      popupMatchSelectWidth={440}
      options={[...options]}
      optionRender={({ data }) => (
        <span className="listed-method">
          <b>{data.label}</b> <span className="quiet">{data.told}</span>
          <span className="formula-line">
            {data.formula !== null && data.formula.length <= LONGEST ? <Tex tex={data.formula} /> : '…'}
          </span>
        </span>
      )}
      onSelect={(key) =>
        void textOf(key)
          .then(({ title, text }) => onTake(title, text))
          .catch((thrown: unknown) =>
            message.error(thrown instanceof Error ? thrown.message : String(thrown)),
          )
      }
    />
  );
}
