import { Controller, Get, Inject } from '@nestjs/common';
import { ApiOkResponse, ApiProperty, ApiTags } from '@nestjs/swagger';
import { DataSource } from 'typeorm';
import { Public } from './access/public.ts';
import { Engine } from './engines/engine.ts';
import { ApiErrors } from './errors/api-errors.ts';

class HealthDto {
  @ApiProperty({ enum: ['ok'] })
  status: 'ok';

  @ApiProperty({
    enum: ['none', 'reached', 'lost'],
    description: 'the queue of workers; none where the server does long studies itself',
  })
  queue: 'none' | 'reached' | 'lost';

  @ApiProperty({
    oneOf: [{ type: 'integer' }, { type: 'null' }],
    description: 'workers at the queue; null where there is none',
  })
  workers: number | null;
}

/** Answers whether the server and its store are there. */
@ApiTags('health')
@Controller('api/health')
export class HealthController {
  readonly #store: DataSource;
  readonly #engine: Engine;

  constructor(store: DataSource, @Inject(Engine) engine: Engine) {
    this.#store = store;
    this.#engine = engine;
  }

  @Public()
  @Get()
  @ApiOkResponse({ type: HealthDto })
  @ApiErrors()
  async health(): Promise<HealthDto> {
    await this.#store.query('SELECT 1');
    const { workers, isReached } = this.#engine.state;
    return { status: 'ok', queue: workers === null ? 'none' : isReached ? 'reached' : 'lost', workers };
  }
}
