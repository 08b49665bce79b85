import type { Document } from '@schritt/core';
import { ApiProperty } from '@nestjs/swagger';
import { IsDocument } from '../entries/is-document.ts';
import type { JobState } from './job.entity.ts';

/** What a client sends to have a study run on the server. */
export class CreateJobDto {
  @ApiProperty({
    type: 'object',
    additionalProperties: true,
    description: 'a study of the open file format, as docs/schritt.schema.json describes it',
  })
  @IsDocument()
  document: Document;
}

/** Where a job is. */
export class JobDto {
  @ApiProperty()
  id: string;

  @ApiProperty({ enum: ['waiting', 'running', 'done', 'failed', 'cancelled', 'too long'] })
  state: JobState;

  @ApiProperty({ description: 'the part of all steps that is done, from 0 to 1' })
  part: number;

  @ApiProperty({ description: 'rungs of all methods that are finished while it runs' })
  rungs: number;

  @ApiProperty({ type: String, nullable: true, description: 'why it failed, in words' })
  why: string | null;
}
