import { Controller, Get } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { DataSource } from 'typeorm';

/** Answers whether the server and its store are there. */
@ApiTags('health')
@Controller('api/health')
export class HealthController {
  readonly #store: DataSource;

  constructor(store: DataSource) {
    this.#store = store;
  }

  @Get()
  async health(): Promise<{ readonly status: 'ok' }> {
    await this.#store.query('SELECT 1');
    return { status: 'ok' };
  }
}
