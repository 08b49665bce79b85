import { Controller, Get, Inject, Param, Req, Res } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { Public } from '../access/public.ts';
import { ApiErrors } from '../errors/api-errors.ts';
import { EntriesService } from './entries.service.ts';
import { ShownDto } from './entry.dto.ts';

/** What owners show to anyone with the link. */
@ApiTags('shown')
@Controller('api/shown')
export class ShownController {
  @Inject(EntriesService)
  private readonly entries: EntriesService;

  @Public()
  @Get(':at')
  @ApiOkResponse({ type: ShownDto })
  @ApiErrors('not-found', 'damaged')
  async read(@Param('at') at: string, @Req() request: Request, @Res() response: Response): Promise<void> {
    const { body, etag } = await this.entries.shown(at);
    // a browser asks each time whether what it has is still right
    response.set({ ETag: etag, 'Cache-Control': 'private, no-cache' });
    if (request.fresh) response.status(304).end();
    else response.type('application/json').send(body);
  }
}
