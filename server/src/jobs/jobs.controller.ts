import { openStudy } from '@schritt/core/document';
import type { MethodRun } from '@schritt/core/study';
import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Inject,
  type MessageEvent,
  Post,
  Sse,
} from '@nestjs/common';
import {
  ApiBadRequestResponse,
  ApiCreatedResponse,
  ApiNotFoundResponse,
  ApiOkResponse,
  ApiTags,
} from '@nestjs/swagger';
import { map, type Observable } from 'rxjs';
import { IdParam } from '../documents/id-param.ts';
import { ApiError, ApiErrorBody } from '../errors/api-error.ts';
import { textFaults } from '../documents/text-faults.ts';
import { CreateJobDto, JobDto } from './job.dto.ts';
import { JobsService } from './jobs.service.ts';

/** Long studies that run on the server, whoever looks on. */
@ApiTags('jobs')
@Controller('api/jobs')
export class JobsController {
  @Inject(JobsService)
  private readonly jobs: JobsService;

  /** Begins to run a study, or answers the job that has run or runs the same. */
  @Post()
  @ApiCreatedResponse({ type: JobDto })
  @ApiBadRequestResponse({ type: ApiErrorBody })
  create(@Body() { document }: CreateJobDto): Promise<JobDto> {
    if (document.kind !== 'study')
      throw new ApiError('bad-request', `this is a ${document.kind}, not a study`);
    const opened = openStudy(document);
    if (!opened.ok)
      throw new ApiError('bad-request', 'the texts of this study have errors', textFaults(opened.errors));
    return this.jobs.create(document);
  }

  @Get(':id')
  @ApiOkResponse({ type: JobDto })
  @ApiNotFoundResponse({ type: ApiErrorBody })
  read(@IdParam() id: string): Promise<JobDto> {
    return this.jobs.read(id);
  }

  /** The runs of a job, one a method; the finished rungs of one that is under way. */
  @Get(':id/runs')
  @ApiOkResponse({
    description: 'one entry a method, with one entry a rung',
    schema: { type: 'array', items: { type: 'object', additionalProperties: true } },
  })
  @ApiNotFoundResponse({ type: ApiErrorBody })
  runs(@IdParam() id: string): Promise<readonly MethodRun[]> {
    return this.jobs.runs(id);
  }

  /** Where the job is, as server-sent events, until it ends. */
  @Sse(':id/events')
  @ApiNotFoundResponse({ type: ApiErrorBody })
  async events(@IdParam() id: string): Promise<Observable<MessageEvent>> {
    const news = await this.jobs.news(id);
    return news.pipe(map((data) => ({ data })));
  }

  /** Ends a job. */
  @Delete(':id')
  @HttpCode(204)
  @ApiNotFoundResponse({ type: ApiErrorBody })
  cancel(@IdParam() id: string): Promise<void> {
    return this.jobs.cancel(id);
  }
}
