import {
  type Asked,
  FORMATS_OF,
  HANDOUTS_OF,
  PAPERS,
  PLOTS,
  PLOT_INKS,
  PLOT_SIZES,
  TAKEN_WHATS,
  type TakenWhat,
} from '@schritt/core/document';
import { applyDecorators } from '@nestjs/common';
import { ApiProperty } from '@nestjs/swagger';
import { IsBoolean, IsIn, IsOptional, IsString, MaxLength } from 'class-validator';
import { asBoolean } from './entry.dto.ts';

const FORMATS = [...new Set(Object.values(FORMATS_OF).flat())];

/** What of a study, and in which format. */
export class TakenParamsDto {
  @ApiProperty({ format: 'uuid' })
  @IsString()
  id: string;

  @ApiProperty({ enum: TAKEN_WHATS, enumName: 'TakenWhat', description: 'what is taken away' })
  @IsIn(TAKEN_WHATS, { message: `what is taken away must be one of ${TAKEN_WHATS.join(', ')}` })
  what: TakenWhat;

  @ApiProperty({ enum: FORMATS, enumName: 'TakenFormat', description: 'how it is written' })
  @IsIn(FORMATS, { message: `the format must be one of ${FORMATS.join(', ')}` })
  as: string;
}

/** A text of the query that may be left out. */
function Text(description: string, most = 200): PropertyDecorator {
  return applyDecorators(
    ApiProperty({ required: false, description }),
    IsOptional(),
    IsString(),
    MaxLength(most),
  );
}

/** One of a few words. */
function Word(words: readonly string[], description: string): PropertyDecorator {
  return applyDecorators(
    ApiProperty({ required: false, enum: words, description }),
    IsOptional(),
    IsIn(words),
  );
}

/** Yes or no. */
function Flag(description: string): PropertyDecorator {
  return applyDecorators(
    ApiProperty({ required: false, type: Boolean, description }),
    IsOptional(),
    asBoolean,
    IsBoolean(),
  );
}

/** What is asked for besides: the same words as those of `schritt export`. */
export class TakenQueryDto implements Omit<Asked, 'what' | 'as'> {
  @Text('title of a method; the first one where it may be left out')
  method?: string;

  @Text('a step size: a number or an expression such as pi/8')
  h?: string;

  @Text('a number of steps instead of a step size')
  steps?: string;

  @Text('significant digits')
  digits?: string;

  @Text('columns of the step table by name, separated by commas', 2000)
  columns?: string;

  @Text('print every k-th grid point')
  every?: string;

  @Flag('UTF-8 BOM before CSV (for spreadsheet programs)')
  bom?: boolean;

  @Flag('LaTeX or HTML as a fragment')
  part?: boolean;

  @Text('a step that is worked out among the formulas')
  step?: string;

  @Word(PLOTS, 'which plot')
  plot?: (typeof PLOTS)[number];

  @Word(PLOT_SIZES, 'what a plot is for')
  size?: (typeof PLOT_SIZES)[number];

  @Word(PLOT_INKS, 'in colour, or in black and white')
  ink?: (typeof PLOT_INKS)[number];

  @Word(HANDOUTS_OF, 'which table a handout has')
  of?: (typeof HANDOUTS_OF)[number];

  @Text('the task of a handout', 5000)
  task?: string;

  @Text('blanks of a handout: columns k1, k2; rows after 2; cells 3 k1; coefficients', 2000)
  blanks?: string;

  @Flag('room for a plot on a handout')
  room?: boolean;

  @Text('numbers of the problem in variants: k in 0.2, 0.25, ..., 0.6', 2000)
  variants?: string;

  @Text('how many variants')
  sheets?: string;

  @Text('the same number gives the same sheets again')
  seed?: string;

  @Flag('with the solution')
  key?: boolean;

  @Word(PAPERS, 'size of the paper')
  paper?: (typeof PAPERS)[number];
}
