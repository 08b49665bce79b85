import type { Document } from '@schritt/core/document';
import { ApiProperty } from '@nestjs/swagger';
import { IsInt, Min } from 'class-validator';
import { ANY_DOCUMENT } from '../documents/document-schema.ts';
import { IsDocument } from '../documents/is-document.ts';

/** What a client sends to store something new. */
export class CreateEntryDto {
  @ApiProperty(ANY_DOCUMENT)
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

  @ApiProperty(ANY_DOCUMENT)
  document: Document;
}
