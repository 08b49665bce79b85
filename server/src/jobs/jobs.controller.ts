import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Inject,
  type MessageEvent,
  Post,
  Sse,
} from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { map, type Observable } from 'rxjs';
import { Owner } from '../access/owner.ts';
import { IdParam } from '../documents/id-param.ts';
import { ApiError } from '../errors/api-error.ts';
import { ApiErrors } from '../errors/api-errors.ts';
import { DOCUMENT_BODY, JsonBody } from '../requests/json-body.ts';
import { RequestPool } from '../threads/request-pool.ts';
import { CreateJobDto, JobDto } from './job.dto.ts';
import { JobsService } from './jobs.service.ts';

/** Long studies that run on the server, independent of any page. */
@ApiTags('jobs')
@Controller('api/jobs')
export class JobsController {
  @Inject(JobsService)
  private readonly jobs: JobsService;

  @Inject(RequestPool)
  private readonly pool: RequestPool;

  /** Begins to run a study, or answers the job that has run or runs the same. */
  @Post()
  @JsonBody(DOCUMENT_BODY)
  @ApiCreatedResponse({ type: JobDto })
  @ApiErrors()
  async create(@Body() { document }: CreateJobDto, @Owner() owner: string): Promise<JobDto> {
    if (document.kind !== 'study')
      throw new ApiError('bad-request', `this is a ${document.kind}, not a study`);
    const request = { kind: 'study', document } as const;
    return this.jobs.create(request, await this.pool.plan(request), owner);
  }

  @Get(':id')
  @ApiOkResponse({ type: JobDto })
  @ApiErrors('not-found')
  read(@IdParam() id: string): Promise<JobDto> {
    return this.jobs.read(id);
  }

  /** The runs of a job, one per method; the finished rungs of one that is under way. */
  @Get(':id/runs')
  @Header('Content-Type', 'application/json; charset=utf-8')
  @ApiOkResponse({
    description: 'one entry per method, with one entry per step size',
    schema: { type: 'array', items: { type: 'object', additionalProperties: true } },
  })
  @ApiErrors('not-found')
  runs(@IdParam() id: string): Promise<string> {
    return this.jobs.runs(id);
  }

  /** Where the job is, as server-sent events, until it ends. */
  @Sse(':id/events')
  @ApiOkResponse({
    description: 'one event per change, with the job as its data',
    content: { 'text/event-stream': { schema: { type: 'string' } } },
  })
  @ApiErrors('not-found')
  async events(@IdParam() id: string): Promise<Observable<MessageEvent>> {
    const news = await this.jobs.news(id);
    return news.pipe(map((data) => ({ data })));
  }

  /** Ends a job. */
  @Delete(':id')
  @HttpCode(204)
  @ApiNoContentResponse({ description: 'the job has ended' })
  @ApiErrors('not-found')
  cancel(@IdParam() id: string): Promise<void> {
    return this.jobs.cancel(id);
  }
}
