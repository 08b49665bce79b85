import {
  RUN_EXPORTS,
  type RunExport,
  type SchrittDocument,
  STUDY_TABLES,
  type StudyTable,
} from '@schritt/core/document';
import {
  type Layout,
  LAYOUTS,
  type MarkRule,
  type SubmittedText,
  USUAL_RULE,
  type VariantRequest,
} from '@schritt/core/marking';
import { ApiProperty } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { STUDY_DOCUMENT } from '../documents/document-schema.ts';
import { IsDocument } from '../documents/is-document.ts';
import { ExportQueryDto } from '../entries/export.dto.ts';
import type { JobState } from './job.entity.ts';

/** What a client sends to have a study run on the server. */
export class CreateJobDto {
  @ApiProperty(STUDY_DOCUMENT)
  @IsDocument()
  document: SchrittDocument;
}

/** Other numbers for every sheet. */
export class VariantsDto implements VariantRequest {
  @ApiProperty({ example: 'k in 0.2, 0.25, ..., 0.6' })
  @IsString()
  @MaxLength(2000)
  choices: string;

  @ApiProperty({ minimum: 1, maximum: 500 })
  @IsInt()
  @Min(1)
  @Max(500)
  sheets: number;

  @ApiProperty({ description: 'the same seed gives the same sheets' })
  @IsInt()
  @Min(0)
  @Max(2 ** 31)
  seed: number;
}

const FILE_KINDS: readonly (RunExport | StudyTable)[] = [...RUN_EXPORTS, ...STUDY_TABLES];

/** A file that is made for every sheet. */
export class SheetFileDto extends ExportQueryDto {
  @ApiProperty({ enum: FILE_KINDS, description: 'what is exported' })
  @IsIn(FILE_KINDS, { message: `the export must be one of ${FILE_KINDS.join(', ')}` })
  what: RunExport | StudyTable;

  @ApiProperty({ required: false, description: 'file format' })
  @IsOptional()
  @IsString()
  @MaxLength(10)
  as?: string;
}

/** What a client sends to have files made of a study with other numbers for every sheet. */
export class CreateSheetsDto extends CreateJobDto {
  @ApiProperty({ type: () => VariantsDto })
  @ValidateNested()
  @Type(() => VariantsDto)
  variants: VariantsDto;

  @ApiProperty({ type: () => [SheetFileDto] })
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(12)
  @ValidateNested({ each: true })
  @Type(() => SheetFileDto)
  files: SheetFileDto[];
}

/** A file that a student has handed in, as text. */
export class SubmittedTextDto implements SubmittedText {
  @ApiProperty()
  @IsString()
  @MaxLength(300)
  name: string;

  @ApiProperty()
  @IsString()
  @MaxLength(500_000)
  text: string;
}

/** How marks are given. */
export class MarkRuleDto implements MarkRule {
  @ApiProperty({ default: USUAL_RULE.rowMarks })
  @IsNumber()
  @Min(0)
  rowMarks: number;

  @ApiProperty({ default: USUAL_RULE.stepMarks })
  @IsNumber()
  @Min(0)
  stepMarks: number;

  @ApiProperty({ default: USUAL_RULE.roundTo })
  @IsNumber()
  @Min(0.01)
  roundTo: number;

  @ApiProperty({ oneOf: [{ type: 'integer' }, { type: 'null' }] })
  @ValidateIf((_, value) => value !== null)
  @IsInt()
  @Min(1)
  @Max(10_000)
  rowsAsked: number | null;
}

/** What a client sends to have a class marked. */
export class CreateMarkingDto extends CreateJobDto {
  @ApiProperty({ description: 'title of the method that was asked for' })
  @IsString()
  @MaxLength(200)
  method: string;

  @ApiProperty({ required: false, description: 'a step size: a number or an expression such as pi/8' })
  @IsOptional()
  @IsString()
  @MaxLength(200)
  h?: string;

  @ApiProperty({ required: false, description: 'a number of steps instead of a step size' })
  @IsOptional()
  @IsString()
  @MaxLength(20)
  steps?: string;

  @ApiProperty({ required: false, type: () => VariantsDto })
  @IsOptional()
  @ValidateNested()
  @Type(() => VariantsDto)
  variants?: VariantsDto;

  @ApiProperty({ enum: LAYOUTS, enumName: 'SubmissionLayout' })
  @IsIn(LAYOUTS)
  layout: Layout;

  @ApiProperty({ required: false, type: () => MarkRuleDto })
  @IsOptional()
  @ValidateNested()
  @Type(() => MarkRuleDto)
  rule?: MarkRuleDto;

  @ApiProperty({ type: () => [SubmittedTextDto] })
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(1000)
  @ValidateNested({ each: true })
  @Type(() => SubmittedTextDto)
  texts: SubmittedTextDto[];
}

/** Where a job is. */
export class JobDto {
  @ApiProperty()
  id: string;

  @ApiProperty({ enum: ['waiting', 'running', 'done', 'failed', 'cancelled', 'too long'] })
  state: JobState;

  @ApiProperty({ description: 'the fraction of the work completed, from 0 to 1' })
  part: number;

  @ApiProperty({
    description: 'what is finished: runs, each of one method at one step size, sheets or students',
  })
  done: number;

  @ApiProperty({ description: 'all of them; 0 until they are counted' })
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
