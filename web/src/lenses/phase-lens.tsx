import { type ReactNode, useMemo, useState } from 'react';
import { PickList } from '../controls/pick-list.tsx';
import { useDesk } from '../desk/desk.ts';
import { PictureCanvas } from '../pictures/picture-canvas.tsx';
import type { Picture } from '../pictures/picture.ts';
import { LensChoices, RungChoices } from './lens-head.tsx';
import { phasePicture } from './phase-picture.ts';
import { useRunView } from './run-view.ts';

/** Two components of every run against one another. */
export function PhaseLens(): ReactNode {
  const desk = useDesk();
  const view = useRunView();
  const { component } = desk;
  const names = view?.curves.components ?? [];
  const [up, setUp] = useState<number | null>(null);
  const [equal, setEqual] = useState(true);
  const across = Math.min(component.wanted, Math.max(0, names.length - 1));
  const height = up !== null && up < names.length && up !== across ? up : across === 0 ? 1 : 0;
  const picture = useMemo(
    (): Picture | null => view && phasePicture(view, [across, height], equal),
    [view, across, height, equal],
  );
  if (names.length < 2)
    return <p className="quiet nothing">A phase picture needs two components; this problem has one.</p>;
  const options = names.map((label, value) => ({ value, label }));
  return (
    <>
      <div className="lens-ways">
        <PickList
          isBare
          label="Component upwards"
          value={height}
          options={options.filter(({ value }) => value !== across)}
          onChange={setUp}
        />
        <span className="quiet">over</span>
        <PickList
          isBare
          label="Component across"
          value={across}
          options={options}
          onChange={component.choose}
        />
        <LensChoices
          choices={[
            {
              key: 'equal',
              label: 'equal scale',
              isChosen: equal,
              choose: () => setEqual((now) => !now),
            },
          ]}
        />
        <RungChoices />
      </div>
      {picture !== null && <PictureCanvas picture={picture} switches={desk} />}
    </>
  );
}
