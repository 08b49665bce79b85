import { Body, Controller, HttpCode, Inject, Post } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
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
  @HttpCode(200)
  @ApiOkResponse({ type: SetFormulasDto })
  @ApiErrors('bad-request')
  async set(@Body() { formulas }: FormulasDto): Promise<SetFormulasDto> {
    return { html: await this.typeset.set(formulas) };
  }
}
