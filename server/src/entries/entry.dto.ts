import type { Document } from '@schritt/core';
import { ApiProperty } from '@nestjs/swagger';
import { IsInt, Min } from 'class-validator';
import { IsDocument } from './is-document.ts';

const DOCUMENT = {
  type: 'object',
  additionalProperties: true,
  description: 'a document of the open file format, as docs/schritt.schema.json describes it',
} as const;

/** What a client sends to store something new. */
export class CreateEntryDto {
  @ApiProperty(DOCUMENT)
  @IsDocument()
  document: Document;
}

/** What a client sends to replace something: the document and the version it was made from. */
export class ReplaceEntryDto extends CreateEntryDto {
  @ApiProperty({ minimum: 1, description: 'the version this replacement was made from' })
  @IsInt()
  @Min(1)
  version: number;
}

/** What the server answers. */
export class EntryDto {
  @ApiProperty()
  id: string;

  @ApiProperty({ enum: ['study', 'problem', 'method'] })
  kind: Document['kind'];

  @ApiProperty()
  version: number;

  @ApiProperty({ description: 'time of the last change, ISO 8601' })
  updatedAt: string;

  @ApiProperty(DOCUMENT)
  document: Document;
}
