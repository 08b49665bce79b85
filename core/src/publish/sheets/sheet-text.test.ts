import { writeOds } from 'hucre/ods';
import { writeXlsx } from 'hucre/xlsx';
import { Refusal } from '../../text/refusal.ts';
import { sheetText } from './sheet-text.ts';

const SHEETS = [
  { name: 'Notes', rows: [['from the weir']] },
  {
    name: 'Gauge',
    rows: [
      ['t (h)', 'level (m)', null],
      [0, 4, null],
      [0.1, 3.93, null],
      [null, null, null],
      [0.2, null, null],
    ],
  },
];

test.each([
  ['xlsx', writeXlsx],
  ['ods', writeOds],
] as const)('the first sheet of %s with numbers is read as columns', async (format, write) => {
  expect(await sheetText(await write({ sheets: SHEETS }), format)).toBe(
    't (h)\tlevel (m)\n0\t4\n0.1\t3.93\n0.2\t',
  );
  await expect(sheetText(await write({ sheets: SHEETS.slice(0, 1) }), format)).rejects.toThrow(
    'no sheet of this file holds numbers',
  );
  await expect(sheetText(new TextEncoder().encode('t,level\n0,4'), format)).rejects.toThrow(Refusal);
});
