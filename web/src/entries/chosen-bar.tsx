import { Button } from 'antd';
import type { ReactNode } from 'react';
import { type EntryRow, type Kind, storedText } from '../api/client.ts';
import { download } from '../plots/download.ts';
import { notices } from '../frame/notices.tsx';
import { moveToBin } from './entry-row.tsx';
import { fileName } from './files.ts';

interface ChosenBarProps {
  readonly kind: Kind;
  readonly chosen: readonly EntryRow[];
  readonly again: () => Promise<unknown>;
  readonly onNone: () => void;
}

/** File names for entries of any titles, none twice. */
export function fileNames(titles: readonly string[]): readonly string[] {
  const taken = new Set<string>();
  return titles.map((title) => {
    let name = fileName(title);
    for (let number = 2; taken.has(name); number += 1) name = fileName(`${title} ${number}`);
    taken.add(name);
    return name;
  });
}

/** What can be done with several entries at once. */
export function ChosenBar({ kind, chosen, again, onNone }: ChosenBarProps): ReactNode {
  const save = notices.reporting(async () => {
    const names = fileNames(chosen.map(({ title }) => title));
    for (const [i, { id }] of chosen.entries()) download(names[i] ?? '', await storedText(kind, id));
  });
  return (
    <div className="chosen-bar" role="group" aria-label="Selected entries">
      <span>{chosen.length} selected</span>
      <Button size="small" type="text" onClick={save}>
        {chosen.length === 1 ? 'Download' : 'Download all'}
      </Button>
      <Button
        size="small"
        type="text"
        onClick={() => {
          void moveToBin(kind, chosen, again);
          onNone();
        }}
      >
        {chosen.length === 1 ? 'Delete' : `Delete all ${chosen.length}`}
      </Button>
      <Button size="small" type="text" onClick={onNone}>
        Clear selection
      </Button>
    </div>
  );
}
