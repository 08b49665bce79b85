import { timingSafeEqual } from 'node:crypto';
import { Controller, Get, Inject, Req, Res } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { ACCESS_OPTIONS, type AccessOptions } from '../access/access-options.ts';
import { digest } from '../access/digest.ts';
import { Public } from '../access/public.ts';
import { hasSession } from '../access/access.guard.ts';
import { SessionsService } from '../access/sessions.service.ts';
import { ApiError } from '../errors/api-error.ts';
import { ApiErrors } from '../errors/api-errors.ts';
import { MetricsService } from './metrics.service.ts';

/** What Prometheus collects: with a key of its own, which opens nothing else, or within a session. */
@ApiTags('health')
@Controller('api/metrics')
export class MetricsController {
  @Inject(MetricsService)
  private readonly metrics: MetricsService;

  @Inject(SessionsService)
  private readonly sessions: SessionsService;

  @Inject(ACCESS_OPTIONS)
  private readonly options: AccessOptions;

  @Public()
  @Get()
  @ApiOkResponse({ content: { 'text/plain': { schema: { type: 'string' } } } })
  @ApiErrors()
  async read(@Req() request: Request, @Res() response: Response): Promise<void> {
    const [, sent = ''] = /^Bearer (.+)$/.exec(request.headers.authorization ?? '') ?? [];
    const { metricsKey } = this.options;
    const hasKey = metricsKey !== null && timingSafeEqual(digest(metricsKey), digest(sent));
    if (!hasKey && !(await hasSession(this.sessions, request)))
      throw new ApiError(
        'no-key',
        'This needs a session, or the key of SCHRITT_METRICS_KEY as bearer token.',
      );
    response.type(this.metrics.contentType).send(await this.metrics.text());
  }
}
