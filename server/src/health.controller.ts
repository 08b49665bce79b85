import { Controller, Get } from '@nestjs/common';
import { ApiOkResponse, ApiProperty, ApiTags } from '@nestjs/swagger';
import { DataSource } from 'typeorm';
import { Public } from './access/public.ts';
import { ApiErrors } from './errors/api-errors.ts';

class HealthDto {
  @ApiProperty({ enum: ['ok'] })
  status: 'ok';
}

/** Answers whether the server and its store are there. */
@ApiTags('health')
@Controller('api/health')
export class HealthController {
  readonly #store: DataSource;

  constructor(store: DataSource) {
    this.#store = store;
  }

  @Public()
  @Get()
  @ApiOkResponse({ type: HealthDto })
  @ApiErrors()
  async health(): Promise<HealthDto> {
    await this.#store.query('SELECT 1');
    return { status: 'ok' };
  }
}
