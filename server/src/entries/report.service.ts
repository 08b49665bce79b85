import { openStudy, studyReport, type StudyReport } from '@schritt/core/document';
import { layLadder, runStudy, stepsOf } from '@schritt/core/study';
import { Injectable } from '@nestjs/common';
import { ApiError } from '../errors/api-error.ts';
import { textFaults } from '../documents/text-faults.ts';
import { EntriesService } from './entries.service.ts';

/** Component steps that a request may ask for; longer studies belong into a page or a terminal. */
const MOST_WORK = 2e7;

/** Runs a stored study and answers its numbers, by the same core as pages and the terminal. */
@Injectable()
export class ReportService {
  readonly #entries: EntriesService;

  constructor(entries: EntriesService) {
    this.#entries = entries;
  }

  async report(id: string): Promise<StudyReport> {
    const { document } = await this.#entries.read('study', id);
    if (document.kind !== 'study') throw new ApiError('not-found', 'this is no study');
    const opened = openStudy(document);
    if (!opened.ok)
      throw new ApiError('bad-request', 'the texts of this study have errors', textFaults(opened.errors));
    const { study } = opened;
    const { problem, methods } = study;
    const rungs = layLadder(study.ladder, problem.start, problem.end, study.lastStep);
    if (stepsOf(rungs) * methods.length * problem.size > MOST_WORK)
      throw new ApiError(
        'bad-request',
        'this study is too long to be run within a request; post it to /api/jobs, or run it in a terminal',
      );
    return studyReport(document.title, problem, runStudy(study));
  }
}
