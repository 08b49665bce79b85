import { Body, Controller, HttpCode, Inject, Post } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { MOST_FORMULAS } from '@schritt/core/notation';
import { JsonBody } from '../requests/json-body.ts';
import { ApiErrors } from '../errors/api-errors.ts';
import { FormulasDto, SetFormulasDto } from './typeset.dto.ts';
import { TypesetService } from './typeset.service.ts';

/** Formulas for a page that was just opened: what sets them is larger than most pages. */
@ApiTags('typeset')
@Controller('api/typeset')
export class TypesetController {
  @Inject(TypesetService)
  private readonly typeset: TypesetService;

  @Post()
  @JsonBody({ bytes: 500_000, values: 5 * MOST_FORMULAS })
  @HttpCode(200)
  @ApiOkResponse({ type: SetFormulasDto })
  @ApiErrors('bad-request')
  async set(@Body() { formulas }: FormulasDto): Promise<SetFormulasDto> {
    return { html: await this.typeset.set(formulas) };
  }
}
