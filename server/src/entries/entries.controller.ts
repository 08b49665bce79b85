import type { Document, StudyReport } from '@schritt/core/document';
import { Body, Controller, Delete, Get, HttpCode, Inject, Post, Put } from '@nestjs/common';
import {
  ApiBadRequestResponse,
  ApiConflictResponse,
  ApiCreatedResponse,
  ApiNotFoundResponse,
  ApiOkResponse,
  ApiTags,
} from '@nestjs/swagger';
import { ApiErrorBody } from '../errors/api-error.ts';
import { IdParam } from '../documents/id-param.ts';
import { EntriesService } from './entries.service.ts';
import { ReportService } from './report.service.ts';
import { CreateEntryDto, EntryDto, ReplaceEntryDto } from './entry.dto.ts';

/** List, read, create, replace and delete entries of one kind. */
abstract class EntriesController {
  protected abstract readonly kind: Document['kind'];

  @Inject(EntriesService)
  protected readonly entries: EntriesService;

  @Get()
  @ApiOkResponse({ type: [EntryDto] })
  list(): Promise<readonly EntryDto[]> {
    return this.entries.list(this.kind);
  }

  @Get(':id')
  @ApiOkResponse({ type: EntryDto })
  @ApiNotFoundResponse({ type: ApiErrorBody })
  read(@IdParam() entry: string): Promise<EntryDto> {
    return this.entries.read(this.kind, entry);
  }

  @Post()
  @ApiCreatedResponse({ type: EntryDto })
  @ApiBadRequestResponse({ type: ApiErrorBody })
  create(@Body() body: CreateEntryDto): Promise<EntryDto> {
    return this.entries.create(this.kind, body.document);
  }

  @Put(':id')
  @ApiOkResponse({ type: EntryDto })
  @ApiBadRequestResponse({ type: ApiErrorBody })
  @ApiNotFoundResponse({ type: ApiErrorBody })
  @ApiConflictResponse({
    type: ApiErrorBody,
    description: 'the version is not the present one; nothing was changed',
  })
  replace(@IdParam() entry: string, @Body() body: ReplaceEntryDto): Promise<EntryDto> {
    return this.entries.replace(this.kind, entry, body.version, body.document);
  }

  @Delete(':id')
  @HttpCode(204)
  @ApiNotFoundResponse({ type: ApiErrorBody })
  remove(@IdParam() entry: string): Promise<void> {
    return this.entries.remove(this.kind, entry);
  }
}

@ApiTags('studies')
@Controller('api/studies')
export class StudiesController extends EntriesController {
  protected readonly kind = 'study';

  @Inject(ReportService)
  private readonly reports: ReportService;

  /** The numbers of a study as plain JSON, the same that the terminal prints. */
  @Get(':id/report')
  @ApiOkResponse({ description: 'as docs/file-format.md describes it' })
  @ApiBadRequestResponse({ type: ApiErrorBody })
  @ApiNotFoundResponse({ type: ApiErrorBody })
  report(@IdParam() entry: string): Promise<StudyReport> {
    return this.reports.report(entry);
  }
}

@ApiTags('problems')
@Controller('api/problems')
export class ProblemsController extends EntriesController {
  protected readonly kind = 'problem';
}

@ApiTags('methods')
@Controller('api/methods')
export class MethodsController extends EntriesController {
  protected readonly kind = 'method';
}
