import { fileNames } from './sheet-task.ts';

test('files of a sheet have names of their own', () => {
  expect(
    fileNames([
      { what: 'rungs' },
      { what: 'plot' },
      { what: 'rows', as: 'md' },
      { what: 'rows', as: 'md' },
      { what: 'rows', as: 'csv' },
      { what: 'questions', as: 'qti' },
    ]),
  ).toEqual(['rungs.csv', 'plot.svg', 'rows.md', 'rows 2.md', 'rows.csv', 'questions.zip']);
});
