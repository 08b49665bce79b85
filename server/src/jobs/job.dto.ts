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

  @ApiProperty({ description: 'the fraction of all steps completed, from 0 to 1' })
  part: number;

  @ApiProperty({ description: 'step sizes of all methods finished so far' })
  rungs: number;

  @ApiProperty({ oneOf: [{ type: 'string' }, { type: 'null' }], description: 'why it failed, in words' })
  why: string | null;
}
