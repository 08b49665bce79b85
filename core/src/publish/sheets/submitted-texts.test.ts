import { strToU8, zipSync } from 'fflate';
import { writeOds } from 'hucre/ods';
import { submittedTexts } from './submitted-texts.ts';

const latin = Uint8Array.from('n;Jürg\n0;1,5', (sign) => sign.codePointAt(0) ?? 0);

test('texts, spreadsheets and archives are read; what cannot be read is named with the reason', async () => {
  const sheet = await writeOds({
    sheets: [
      {
        name: 'Rows',
        rows: [
          ['n', 'level'],
          [0, 4],
        ],
      },
    ],
  });
  const archive = zipSync({
    'class/Anna.csv': strToU8('0;4'),
    'class/.hidden': strToU8('x'),
    '__MACOSX/class/Anna.csv': strToU8('x'),
    'class/Ben.ods': sheet,
    'class/photo.csv': Uint8Array.from([80, 0, 1]),
  });
  const read = await submittedTexts([
    { name: 'class.zip', bytes: archive },
    { name: 'old.csv', bytes: latin },
    { name: 'wide.txt', bytes: Uint8Array.from([0xff, 0xfe, 0x31, 0]) },
    { name: 'broken.zip', bytes: strToU8('no archive') },
    { name: 'broken.xlsx', bytes: strToU8('no sheet') },
  ]);
  expect(read.texts).toEqual([
    { name: 'class/Anna.csv', text: '0;4' },
    { name: 'class/Ben.ods', text: 'n\tlevel\n0\t4' },
    { name: 'old.csv', text: 'n;Jürg\n0;1,5' },
    { name: 'wide.txt', text: '1' },
  ]);
  expect(read.unread).toEqual([
    { name: 'class/photo.csv', why: 'this is not a table; use CSV, text, .xlsx or .ods' },
    { name: 'broken.zip', why: 'broken.zip is not an archive that can be read' },
    { name: 'broken.xlsx', why: 'this is not a file of Excel that can be read' },
  ]);
});

test('an archive with too many files is refused', async () => {
  const files = Object.fromEntries(Array.from({ length: 1001 }, (_, i) => [`${i}.csv`, strToU8('0')]));
  const { texts, unread } = await submittedTexts([{ name: 'large.zip', bytes: zipSync(files) }]);
  expect(texts).toEqual([]);
  expect(unread[0]?.why).toContain('more than 1000 files');
});
