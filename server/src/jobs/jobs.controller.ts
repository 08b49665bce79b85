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
  StreamableFile,
} from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { map, type Observable } from 'rxjs';
import type { SchrittDocument, StudyDocument } from '@schritt/core/document';
import { USUAL_RULE } from '@schritt/core/marking';
import { Owner } from '../access/owner.ts';
import { IdParam } from '../documents/id-param.ts';
import { ApiError } from '../errors/api-error.ts';
import { ApiErrors } from '../errors/api-errors.ts';
import { DOCUMENT_BODY, JsonBody } from '../requests/json-body.ts';
import type { JobRequest } from '../tasks/task.ts';
import { RequestPool } from '../threads/request-pool.ts';
import { CreateJobDto, CreateMarkingDto, CreateSheetsDto, JobDto } from './job.dto.ts';
import { JobsService } from './jobs.service.ts';

/** A study, where a document of any kind may come. */
function studyIn(document: SchrittDocument): StudyDocument {
  if (document.kind === 'study') return document;
  throw new ApiError('bad-request', `this is a ${document.kind}, not a study`);
}

/** Long work that is done on the server, independent of any page. */
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
    return this.#begin({ kind: 'study', document: studyIn(document) }, owner);
  }

  /** Begins to make files of a study with other numbers for every sheet; an archive with a folder for each comes of it. */
  @Post('sheets')
  @JsonBody(DOCUMENT_BODY)
  @ApiCreatedResponse({ type: JobDto })
  @ApiErrors()
  async sheets(@Body() body: CreateSheetsDto, @Owner() owner: string): Promise<JobDto> {
    const { document, variants, files } = body;
    return this.#begin({ kind: 'sheets', document: studyIn(document), variants, files }, owner);
  }

  /** Begins to mark a class; an archive with marks, and feedback sheets comes of it. */
  @Post('markings')
  @JsonBody({ ...DOCUMENT_BODY, bytes: 8_000_000 })
  @ApiCreatedResponse({ type: JobDto })
  @ApiErrors()
  async markings(@Body() body: CreateMarkingDto, @Owner() owner: string): Promise<JobDto> {
    const { document, method, h, steps, variants = null, layout, rule = USUAL_RULE, texts } = body;
    const run = { method, ...(h === undefined ? {} : { h }), ...(steps === undefined ? {} : { steps }) };
    const study = studyIn(document);
    return this.#begin({ kind: 'marking', document: study, run, variants, layout, rule, texts }, owner);
  }

  /** The archive that a job of sheets or marking has made. */
  @Get(':id/file')
  @ApiOkResponse({ content: { 'application/zip': { schema: { type: 'string', format: 'binary' } } } })
  @ApiErrors('not-found')
  async file(@IdParam() id: string): Promise<StreamableFile> {
    return new StreamableFile(await this.jobs.file(id), {
      type: 'application/zip',
      disposition: 'attachment; filename="schritt.zip"',
    });
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

  async #begin(request: JobRequest, owner: string): Promise<JobDto> {
    return this.jobs.create(request, await this.pool.plan(request), owner);
  }
}
