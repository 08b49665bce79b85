import {
  type ExportQuery,
  FORMATS_OF,
  DRAWN_AS,
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

  @ApiProperty({ enum: RUN_EXPORTS, enumName: 'TakenWhat', description: 'what is exported' })
  @IsIn(RUN_EXPORTS, { message: `the export must be one of ${RUN_EXPORTS.join(', ')}` })
  what: RunExport;

  @ApiProperty({ enum: FORMATS, enumName: 'TakenFormat', description: 'file format' })
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
  @QueryText('title of a method; the first one if omitted')
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

  @QueryFlag('CSV with semicolons and decimal commas')
  comma?: boolean;

  @QueryFlag('LaTeX or HTML as a fragment')
  part?: boolean;

  @QueryText('a step that is worked out among the formulas')
  step?: string;

  @QueryWord(PLOTS, 'which plot')
  plot?: (typeof PLOTS)[number];

  @QueryWord(PLOT_SIZES, 'plot size')
  size?: (typeof PLOT_SIZES)[number];

  @QueryWord(PLOT_INKS, 'colours of a plot')
  ink?: (typeof PLOT_INKS)[number];

  @QueryText('plots of runs: several step sizes of one method, separated by commas')
  sizes?: string;

  @QueryText('plots of runs: a component by name, or all')
  component?: string;

  @QueryWord(DRAWN_AS, 'how the points of a solution are drawn')
  draw?: (typeof DRAWN_AS)[number];

  @QueryWord(HANDOUTS_OF, 'which table a handout has')
  of?: (typeof HANDOUTS_OF)[number];

  @QueryText('instructions of a handout', 5000)
  task?: string;

  @QueryText('blanks of a handout: columns k1, k2; rows after 2; cells 3 k1; coefficients', 2000)
  blanks?: string;

  @QueryText('kinds of questions, separated by commas: order, value, stage, stable, coefficient')
  kinds?: string;

  @QueryFlag('space for a plot on a handout')
  room?: boolean;

  @QueryText('individual parameters: k in 0.2, 0.25, ..., 0.6', 2000)
  variants?: string;

  @QueryText('number of variants')
  sheets?: string;

  @QueryText('the same seed gives the same sheets')
  seed?: string;

  @QueryFlag('with the answer key')
  key?: boolean;

  @QueryWord(PAPERS, 'paper size')
  paper?: (typeof PAPERS)[number];
}
