import type { SchrittDocument } from '@schritt/core/document';
import { ApiProperty } from '@nestjs/swagger';
import { STUDY_DOCUMENT } from '../documents/document-schema.ts';
import { IsDocument } from '../documents/is-document.ts';
import type { JobState } from './job.entity.ts';

/** What a client sends to have a study run on the server. */
export class CreateJobDto {
  @ApiProperty(STUDY_DOCUMENT)
  @IsDocument()
  document: SchrittDocument;
}

/** Where a job is. */
export class JobDto {
  @ApiProperty()
  id: string;

  @ApiProperty({ enum: ['waiting', 'running', 'done', 'failed', 'cancelled', 'too long'] })
  state: JobState;

  @ApiProperty({ description: 'the fraction of the work completed, from 0 to 1' })
  part: number;

  @ApiProperty({ description: 'runs that are finished, each of one method at one step size' })
  done: number;

  @ApiProperty({ description: 'all runs; 0 until they are counted' })
  of: number;

  @ApiProperty({
    oneOf: [{ type: 'integer' }, { type: 'null' }],
    description: 'workers that take runs; null where the server itself does them',
  })
  workers: number | null;

  @ApiProperty({ description: 'whether the queue of the workers can be reached' })
  isReached: boolean;

  @ApiProperty({ oneOf: [{ type: 'string' }, { type: 'null' }], description: 'why it failed, in words' })
  why: string | null;
}
