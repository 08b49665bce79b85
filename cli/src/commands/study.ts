import { studyCsv, studyReport, studyText } from '@schritt/core/document';
import { studySteps } from '@schritt/core/study';
import { lineWidth } from '../line-width.ts';
import { loadStudy } from '../load.ts';
import { withProgress } from '../progress.ts';

export type StudyFormat = 'json' | 'table' | 'csv';

/** Runs a study file and prints errors, ratios and observed orders. */
export function studyCommand(file: string, format: StudyFormat): string {
  const { document, study } = loadStudy(file);
  const result = withProgress(studySteps(study));
  const report = studyReport(document.title, study.problem, result);
  for (const line of result.problems) process.stderr.write(`${file}: ${line}\n`);
  switch (format) {
    case 'json':
      return `${JSON.stringify(report, null, 2)}\n`;
    case 'csv':
      return studyCsv(report);
    case 'table':
      return `${studyText(report, study.error.scale, lineWidth())}\n`;
  }
}
