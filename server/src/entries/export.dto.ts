import {
  type ExportQuery,
  FORMATS_OF,
  HANDOUTS_OF,
  PAPERS,
  PLOTS,
  PLOT_INKS,
  PLOT_SIZES,
  RUN_EXPORTS,
  type RunExport,
} from '@schritt/core/document';
import { applyDecorators } from '@nestjs/common';
import { ApiProperty } from '@nestjs/swagger';
import { IsBoolean, IsIn, IsOptional, IsString, MaxLength } from 'class-validator';
import { asBoolean } from './entry.dto.ts';

const FORMATS = [...new Set(Object.values(FORMATS_OF).flat())];

/** What of a study, and in which format. */
export class ExportParamsDto {
  @ApiProperty({ format: 'uuid' })
  @IsString()
  id: string;

  @ApiProperty({ enum: RUN_EXPORTS, enumName: 'TakenWhat', description: 'what is taken away' })
  @IsIn(RUN_EXPORTS, { message: `what is taken away must be one of ${RUN_EXPORTS.join(', ')}` })
  what: RunExport;

  @ApiProperty({ enum: FORMATS, enumName: 'TakenFormat', description: 'how it is written' })
  @IsIn(FORMATS, { message: `the format must be one of ${FORMATS.join(', ')}` })
  as: string;
}

/** A text of the query that may be left out. */
function QueryText(description: string, most = 200): PropertyDecorator {
  return applyDecorators(
    ApiProperty({ required: false, description }),
    IsOptional(),
    IsString(),
    MaxLength(most),
  );
}

/** One of a few words. */
function QueryWord(words: readonly string[], description: string): PropertyDecorator {
  return applyDecorators(
    ApiProperty({ required: false, enum: words, description }),
    IsOptional(),
    IsIn(words),
  );
}

/** Yes or no. */
function QueryFlag(description: string): PropertyDecorator {
  return applyDecorators(
    ApiProperty({ required: false, type: Boolean, description }),
    IsOptional(),
    asBoolean,
    IsBoolean(),
  );
}

/** What is asked for besides: the same words as those of `schritt export`. */
export class ExportQueryDto implements Omit<ExportQuery, 'what' | 'as'> {
  @QueryText('title of a method; the first one where it may be left out')
  method?: string;

  @QueryText('a step size: a number or an expression such as pi/8')
  h?: string;

  @QueryText('a number of steps instead of a step size')
  steps?: string;

  @QueryText('significant digits')
  digits?: string;

  @QueryText('columns of the step table by name, separated by commas', 2000)
  columns?: string;

  @QueryText('print every k-th grid point')
  every?: string;

  @QueryFlag('UTF-8 BOM before CSV (for spreadsheet programs)')
  bom?: boolean;

  @QueryFlag('LaTeX or HTML as a fragment')
  part?: boolean;

  @QueryText('a step that is worked out among the formulas')
  step?: string;

  @QueryWord(PLOTS, 'which plot')
  plot?: (typeof PLOTS)[number];

  @QueryWord(PLOT_SIZES, 'what a plot is for')
  size?: (typeof PLOT_SIZES)[number];

  @QueryWord(PLOT_INKS, 'in colour, or in black and white')
  ink?: (typeof PLOT_INKS)[number];

  @QueryWord(HANDOUTS_OF, 'which table a handout has')
  of?: (typeof HANDOUTS_OF)[number];

  @QueryText('the task of a handout', 5000)
  task?: string;

  @QueryText('blanks of a handout: columns k1, k2; rows after 2; cells 3 k1; coefficients', 2000)
  blanks?: string;

  @QueryFlag('room for a plot on a handout')
  room?: boolean;

  @QueryText('numbers of the problem in variants: k in 0.2, 0.25, ..., 0.6', 2000)
  variants?: string;

  @QueryText('how many variants')
  sheets?: string;

  @QueryText('the same number gives the same sheets again')
  seed?: string;

  @QueryFlag('with the solution')
  key?: boolean;

  @QueryWord(PAPERS, 'size of the paper')
  paper?: (typeof PAPERS)[number];
}
