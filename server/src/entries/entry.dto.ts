import {
  type SchrittDocument,
  STUDY_TABLES,
  type StudyTable,
  TABLE_FORMATS,
  type TableFormat,
} from '@schritt/core/document';
import { ApiProperty } from '@nestjs/swagger';
import { Transform } from 'class-transformer';
import { IsBoolean, IsIn, IsInt, IsOptional, IsString, Max, Min } from 'class-validator';
import { ANY_DOCUMENT } from '../documents/document-schema.ts';
import { IsDocument } from '../documents/is-document.ts';

/** What a client sends to store something new. */
export class CreateEntryDto {
  @ApiProperty(ANY_DOCUMENT)
  @IsDocument()
  document: SchrittDocument;
}

/** What a client sends to replace something: the document and the version it was made from. */
export class ReplaceEntryDto extends CreateEntryDto {
  @ApiProperty({ minimum: 1, description: 'the version this replacement was made from' })
  @IsInt()
  @Min(1)
  version: number;
}

/** Entries of a page of a list, at most. */
export const MAX_LISTED = 200;

const asNumber = Transform(({ value }: { readonly value: unknown }) =>
  typeof value === 'string' && /^\d{1,9}$/.test(value) ? Number(value) : value,
);

/** A word of an address as yes or no. */
export const asBoolean = Transform(({ value }: { readonly value: unknown }) =>
  value === 'true' ? true : value === 'false' ? false : value,
);

/** Which part of a list is asked for. */
export class ListQueryDto {
  @ApiProperty({ required: false, default: 0, description: 'entries to skip' })
  @IsOptional()
  @asNumber
  @IsInt()
  @Min(0)
  from?: number;

  @ApiProperty({
    required: false,
    default: 100,
    maximum: MAX_LISTED,
    description: 'maximum number of entries',
  })
  @IsOptional()
  @asNumber
  @IsInt()
  @Min(1)
  @Max(MAX_LISTED)
  count?: number;

  @ApiProperty({ required: false, default: false, description: 'list the bin' })
  @IsOptional()
  @asBoolean
  @IsBoolean()
  bin?: boolean;
}

/** What is said of every entry. */
class EntryHeadDto {
  @ApiProperty()
  id: string;

  @ApiProperty({ enum: ['study', 'problem', 'method'] })
  kind: SchrittDocument['kind'];

  @ApiProperty()
  version: number;

  @ApiProperty({ description: 'time of the last change, ISO 8601' })
  updatedAt: string;
}

/** What the server answers of one entry. */
export class EntryDto extends EntryHeadDto {
  @ApiProperty({
    oneOf: [{ type: 'string' }, { type: 'null' }],
    description: 'the link for read-only visitors, /shown/...',
  })
  shownAt: string | null;

  @ApiProperty(ANY_DOCUMENT)
  document: SchrittDocument;
}

/** An entry in a list, without its body. */
export class EntryRowDto extends EntryHeadDto {
  @ApiProperty()
  title: string;

  @ApiProperty({ description: 'the text of the problem or method, at most 1,200 characters of it' })
  excerpt: string;

  @ApiProperty({ type: [String], description: 'titles of the first methods of a study' })
  methods: readonly string[];
}

/** A part of a list. */
export class EntryListDto {
  @ApiProperty({ type: [EntryRowDto] })
  entries: readonly EntryRowDto[];

  @ApiProperty({ description: 'total number of entries' })
  total: number;
}

/** A document that is shown to anyone with the link. */
export class ShownDto {
  @ApiProperty(ANY_DOCUMENT)
  document: SchrittDocument;
}

/** The link at which an entry is shown. */
export class ShownAtDto {
  @ApiProperty({ description: 'the last part of the link, /shown/...' })
  shownAt: string;
}

/** Which table of a study: what it is of, and its format. */
export class TableParamsDto {
  @ApiProperty({ format: 'uuid' })
  @IsString()
  id: string;

  @ApiProperty({ enum: STUDY_TABLES, enumName: 'TableOfStudy', description: 'which table' })
  @IsIn(STUDY_TABLES, { message: `the table must be one of ${STUDY_TABLES.join(', ')}` })
  what: StudyTable;

  @ApiProperty({ enum: TABLE_FORMATS, enumName: 'TableFormat', description: 'file format' })
  @IsIn(TABLE_FORMATS, { message: `the format must be one of ${TABLE_FORMATS.join(', ')}` })
  as: TableFormat;
}
