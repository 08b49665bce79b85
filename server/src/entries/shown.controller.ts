import { Controller, Get, Inject, Param } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
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
  async read(@Param('at') at: string): Promise<ShownDto> {
    return { document: await this.entries.shown(at) };
  }
}
