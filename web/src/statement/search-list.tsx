import { Select } from 'antd';
import type { ReactNode } from 'react';
import { holdsWords } from '../frame/holds-words.ts';
import { Tex } from '../math/tex.tsx';
import type { Listed } from './listed-method.ts';

/** Longest formula that a row of the list has room for. */
const LONGEST = 90;

/** Whether every word that is sought is in what a row shows. */
export function isListed({ label, told }: Pick<Listed, 'label' | 'told'>, sought: string): boolean {
  return holdsWords(`${label} ${told}`, sought);
}

/** A list that opens at once and is searched by what its rows show. One that is left untouched closes. */
export function SearchList({
  label,
  width,
  options,
  onUse,
  onClose,
}: {
  readonly label: string;
  /** In px. */
  readonly width: number;
  readonly options: readonly Listed[];
  readonly onUse: (value: string) => void;
  readonly onClose: () => void;
}): ReactNode {
  return (
    <Select<string, Listed>
      autoFocus
      defaultOpen
      size="small"
      variant="borderless"
      className="from-library"
      showSearch={{ filterOption: (sought, option) => option !== undefined && isListed(option, sought) }}
      placeholder="search"
      aria-label={label}
      value={null}
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
      listHeight={340}
      listItemHeight={44}
      popupMatchSelectWidth={width}
      options={[...options]}
      optionRender={({ data }) => (
        <span className="listed-method">
          <b>{data.label}</b> <span className="quiet">{data.told}</span>
          {data.formula !== null && (
            <span className="formula-line">
              {data.formula.length <= LONGEST ? <Tex tex={data.formula} /> : '…'}
            </span>
          )}
        </span>
      )}
      onSelect={onUse}
    />
  );
}
