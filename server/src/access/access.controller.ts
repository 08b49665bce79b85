import { Body, Controller, Delete, Get, HttpCode, Inject, Post, Req, Res } from '@nestjs/common';
import { ApiNoContentResponse, ApiOkResponse, ApiProperty, ApiTags } from '@nestjs/swagger';
import { IsString, MaxLength } from 'class-validator';
import type { Request, Response } from 'express';
import { ApiErrors } from '../errors/api-errors.ts';
import { JsonBody } from '../requests/json-body.ts';
import { Public } from './public.ts';
import { clearSessionCookie, sessionToken, setSessionCookie } from './session-cookie.ts';
import { SessionsService } from './sessions.service.ts';

/** What the requesting browser may do. */
class AccessDto {
  @ApiProperty({ description: 'whether this browser may read and write everything' })
  mayWrite: boolean;

  @ApiProperty({ description: 'whether the server has a key, so that this browser can log out' })
  hasKey: boolean;
}

class KeyDto {
  @ApiProperty({ maxLength: 200 })
  @IsString()
  @MaxLength(200)
  key: string;
}

/** Sessions: a browser logs in with the key of the server and can be logged out again. */
@ApiTags('access')
@Controller('api/access')
export class AccessController {
  @Inject(SessionsService)
  private readonly sessions: SessionsService;

  @Get()
  @Public()
  @ApiOkResponse({ type: AccessDto })
  @ApiErrors()
  async access(@Req() request: Request): Promise<AccessDto> {
    const hasKey = !this.sessions.isOpenToAll;
    return { mayWrite: !hasKey || (await this.sessions.isValid(sessionToken(request))), hasKey };
  }

  /** Logs this browser in. */
  @Post()
  @Public()
  @JsonBody({ bytes: 2_000, values: 4 })
  @HttpCode(204)
  @ApiNoContentResponse({ description: 'the session is open' })
  @ApiErrors()
  async open(
    @Body() { key }: KeyDto,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    const token = await this.sessions.open(key, request.ip ?? '');
    if (token !== null) setSessionCookie(response, token);
  }

  /** Logs this browser out. */
  @Delete()
  @HttpCode(204)
  @ApiNoContentResponse({ description: 'the session is revoked' })
  @ApiErrors()
  async close(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    await this.sessions.revoke(sessionToken(request));
    clearSessionCookie(response);
  }

  /** Logs all browsers out, this one included. */
  @Delete('all')
  @HttpCode(204)
  @ApiNoContentResponse({ description: 'all sessions are revoked' })
  @ApiErrors()
  async closeAll(@Res({ passthrough: true }) response: Response): Promise<void> {
    await this.sessions.revokeAll();
    clearSessionCookie(response);
  }
}
