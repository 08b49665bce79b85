import { type ChartEvent, Interaction, type InteractionItem, type InteractionModeFunction } from 'chart.js';
import { getRelativePosition } from 'chart.js/helpers';

declare module 'chart.js' {
  interface InteractionModeMap {
    /** The nearest point of the runs, wherever the pointer is; lines have no points to be read. */
    dots: InteractionModeFunction;
  }
}

/** The order in which datasets of dots are drawn; lines lie below them. */
export const DOTS_ORDER = 1;

Interaction.modes.dots = (chart, event: ChartEvent): InteractionItem[] => {
  const { x, y } = getRelativePosition(event, chart);
  let best: InteractionItem | null = null;
  let least = Infinity;
  for (const meta of chart.getSortedVisibleDatasetMetas()) {
    if (chart.data.datasets[meta.index]?.order !== DOTS_ORDER) continue;
    for (const [index, element] of meta.data.entries()) {
      const distance = Math.hypot(element.x - x, element.y - y);
      if (!(distance < least)) continue;
      least = distance;
      best = { element, datasetIndex: meta.index, index };
    }
  }
  return best === null ? [] : [best];
};
