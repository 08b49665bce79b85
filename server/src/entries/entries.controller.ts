import {
  fileEnding,
  FORMATS_OF,
  mediaType,
  type SchrittDocument,
  type StudyReport,
  TABLE_FORMATS,
} from '@schritt/core/document';
import { plainName } from '@schritt/core/text';
import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Inject,
  Param,
  Post,
  Put,
  Query,
  Res,
  StreamableFile,
} from '@nestjs/common';
import type { Response } from 'express';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { ApiErrors } from '../errors/api-errors.ts';
import { IdParam } from '../documents/id-param.ts';
import { DOCUMENT_BODY, JsonBody } from '../requests/json-body.ts';
import { EntriesService } from './entries.service.ts';
import { ReportService } from './report.service.ts';
import { ExportParamsDto, ExportQueryDto } from './export.dto.ts';
import {
  CreateEntryDto,
  EntryDto,
  EntryListDto,
  ListQueryDto,
  ReplaceEntryDto,
  ShownAtDto,
  TableParamsDto,
} from './entry.dto.ts';

/** Entries of a list that are answered where nobody says how many. */
const LISTED = 100;

/** List, read, create, replace and delete entries of one kind. */
abstract class EntriesController {
  protected abstract readonly kind: SchrittDocument['kind'];

  @Inject(EntriesService)
  protected readonly entries: EntriesService;

  /** A part of the list, without bodies. */
  @Get()
  @ApiOkResponse({ type: EntryListDto })
  @ApiErrors()
  async list(
    @Query() { from = 0, count = LISTED, bin = false }: ListQueryDto,
    @Res() response: Response,
  ): Promise<void> {
    const list = await this.entries.list(this.kind, { from, count, bin });
    // many may ask at once: what is ready is sent as it is
    response.writeHead(200, {
      'Content-Type': 'application/json; charset=utf-8',
      'Content-Length': list.length,
    });
    response.end(list);
  }

  @Get(':id')
  @ApiOkResponse({ type: EntryDto })
  @ApiErrors('not-found', 'damaged')
  read(@IdParam() entry: string): Promise<EntryDto> {
    return this.entries.read(this.kind, entry);
  }

  /** What is stored, character for character, also where it is damaged. */
  @Get(':id/file')
  @Header('Content-Type', 'application/octet-stream')
  @Header('Content-Disposition', 'attachment; filename="stored.schritt.json"')
  @ApiOkResponse({
    description: 'the stored text',
    content: { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } },
  })
  @ApiErrors('not-found')
  file(@IdParam() entry: string): Promise<string> {
    return this.entries.file(this.kind, entry);
  }

  @Post()
  @JsonBody(DOCUMENT_BODY)
  @ApiCreatedResponse({ type: EntryDto })
  @ApiErrors()
  create(@Body() body: CreateEntryDto): Promise<EntryDto> {
    return this.entries.create(this.kind, body.document);
  }

  @Put(':id')
  @JsonBody(DOCUMENT_BODY)
  @ApiOkResponse({ type: EntryDto })
  @ApiErrors('not-found', 'stale-version')
  replace(@IdParam() entry: string, @Body() body: ReplaceEntryDto): Promise<EntryDto> {
    return this.entries.replace(this.kind, entry, body.version, body.document);
  }

  /** Puts an entry into the bin; asked for again, it leaves it there. */
  @Delete(':id')
  @HttpCode(204)
  @ApiNoContentResponse({ description: 'it is in the bin' })
  @ApiErrors('not-found')
  remove(@IdParam() entry: string): Promise<void> {
    return this.entries.remove(this.kind, entry);
  }

  /** Deletes an entry of the bin permanently; one that is not in the bin is refused. */
  @Delete(':id/permanently')
  @HttpCode(204)
  @ApiNoContentResponse({ description: 'it no longer exists' })
  @ApiErrors('not-found', 'not-in-bin')
  deletePermanently(@IdParam() entry: string): Promise<void> {
    return this.entries.deletePermanently(this.kind, entry);
  }

  /** Takes an entry out of the bin; one that is not there stays in its list. */
  @Post(':id/restored')
  @HttpCode(204)
  @ApiNoContentResponse({ description: 'it is back in the list' })
  @ApiErrors('not-found')
  restore(@IdParam() entry: string): Promise<void> {
    return this.entries.restore(this.kind, entry);
  }
}

/** A body that is a text, or bytes. */
interface FileContent {
  readonly schema: { readonly type: 'string'; readonly format?: 'binary' };
}

/** What files of these formats are, for the description. */
function contentOf(formats: readonly string[]): Record<string, FileContent> {
  return Object.fromEntries(
    formats.map((format) => {
      const [type = ''] = mediaType(format).split(';');
      const isText = type.startsWith('text/') || type.includes('json') || type.includes('tex');
      return [type, { schema: isText ? { type: 'string' } : { type: 'string', format: 'binary' } }];
    }),
  );
}

/** Answers a file that is saved and never a page of this address, named by its study. */
function attach(
  response: Response,
  title: string,
  { what, as }: { readonly what: string; readonly as: string },
): void {
  // a function of MATLAB has the name of its file
  const name = as === 'm' ? 'program.m' : `${plainName(title, 'study')}-${what}.${fileEnding(as)}`;
  response.attachment(name).type(mediaType(as));
}

@ApiTags('studies')
@Controller('api/studies')
export class StudiesController extends EntriesController {
  protected readonly kind = 'study';

  @Inject(ReportService)
  private readonly reports: ReportService;

  /** The numbers of a study as plain JSON, the same that the terminal prints. */
  @Get(':id/report')
  @ApiOkResponse({
    description: 'as described in docs/file-format.md',
    schema: { type: 'object', additionalProperties: true },
  })
  @ApiErrors('not-found', 'damaged')
  report(@IdParam() entry: string): Promise<StudyReport> {
    return this.reports.report(entry);
  }

  /** A table of a study as a file: its rungs, its cost, the comparison of its methods. */
  @Get(':id/tables/:what/:as')
  @ApiOkResponse({
    description: 'the table, as described in docs/export.md',
    content: contentOf(TABLE_FORMATS),
  })
  @ApiErrors('not-found', 'damaged')
  async table(
    @IdParam() id: string,
    @Param() params: TableParamsDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<string> {
    const { what, as } = params;
    const { title, content } = await this.reports.table({ id, what, as });
    attach(response, title, { what, as });
    return content;
  }

  /** A run of a study, its plots, formulas, sheets and handouts as files. */
  @Get(':id/taken/:what/:as')
  @ApiOkResponse({
    description: 'the file, as described in docs/export.md',
    content: contentOf(Object.values(FORMATS_OF).flat()),
  })
  @ApiErrors('not-found', 'damaged')
  async taken(
    @IdParam() id: string,
    @Param() params: ExportParamsDto,
    @Query() query: ExportQueryDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const { what, as } = params;
    const { title, content } = await this.reports.taken(id, Object.assign({ what, as }, query));
    attach(response, title, { what, as });
    return new StreamableFile(content);
  }

  /** Shows a study to anyone with the link; they can look and try, and save nothing. */
  @Post(':id/shown')
  @HttpCode(200)
  @ApiOkResponse({ type: ShownAtDto })
  @ApiErrors('not-found')
  async show(@IdParam() entry: string): Promise<ShownAtDto> {
    return { shownAt: await this.entries.show(this.kind, entry) };
  }

  /** Ends that; the link leads nowhere from then on. */
  @Delete(':id/shown')
  @HttpCode(204)
  @ApiNoContentResponse({ description: 'it is no longer shared' })
  @ApiErrors('not-found')
  hide(@IdParam() entry: string): Promise<void> {
    return this.entries.hide(this.kind, entry);
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
