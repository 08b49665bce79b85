import { LONGEST_FORMULA, MOST_FORMULAS } from '@schritt/core/notation';
import { ApiProperty } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsString,
  Matches,
  MaxLength,
  ValidateNested,
} from 'class-validator';

/** Commands that make others: with them a short formula takes seconds. None of ours has them. */
const WITHOUT_DEFINITIONS =
  /^(?!.*\\(?:[egx]?def|let|futurelet|global|long|(?:re)?newcommand|providecommand)(?![a-zA-Z]))/s;
/** Cells take a time that grows with the square of their number. */
const FEW_CELLS = /^(?:[^&]*&){0,60}[^&]*$/;

/** A formula that is to be set. */
export class FormulaDto {
  @ApiProperty({ maxLength: LONGEST_FORMULA, description: 'as TeX' })
  @IsString()
  @MaxLength(LONGEST_FORMULA)
  @Matches(WITHOUT_DEFINITIONS, { message: 'the formula defines commands, which none here may' })
  @Matches(FEW_CELLS, { message: 'the formula has more than 60 cells' })
  tex: string;

  @ApiProperty({ description: 'whether it stands in a line of its own' })
  @IsBoolean()
  block: boolean;
}

/** Formulas that are to be set. */
export class FormulasDto {
  @ApiProperty({ type: [FormulaDto], maxItems: MOST_FORMULAS })
  @IsArray()
  @ArrayMaxSize(MOST_FORMULAS)
  @ValidateNested({ each: true })
  @Type(() => FormulaDto)
  formulas: FormulaDto[];
}

/** The same formulas, set. */
export class SetFormulasDto {
  @ApiProperty({ type: [String], description: 'HTML with MathML, in the order in which they were sent' })
  html: string[];
}
