import { Body, Controller, Get, HttpCode, Inject, Post, Req, Res } from '@nestjs/common';
import { ApiNoContentResponse, ApiOkResponse, ApiProperty, ApiTags } from '@nestjs/swagger';
import { IsString, MaxLength } from 'class-validator';
import type { Request, Response } from 'express';
import { ApiErrors } from '../errors/api-errors.ts';
import type { KeyHolder } from './key-holder.ts';

export const ENTRANCE = Symbol('entrance');

/** What opens the door for those who want to write; null where it is open. */
export interface Entrance {
  readonly key: KeyHolder | null;
}

/** What the one who asks may do. */
class AccessDto {
  @ApiProperty()
  mayWrite: boolean;
}

class KeyDto {
  @ApiProperty({ maxLength: 200 })
  @IsString()
  @MaxLength(200)
  key: string;
}

/** Tells who is asking, and takes the key. */
@ApiTags('access')
@Controller('api/access')
export class AccessController {
  @Inject(ENTRANCE)
  private readonly entrance: Entrance;

  @Get()
  @ApiOkResponse({ type: AccessDto })
  @ApiErrors()
  access(@Req() request: Request): AccessDto {
    const { key } = this.entrance;
    return { mayWrite: key === null || key.isHeldBy(request) };
  }

  /** Takes the key of the link; the browser keeps a cookie that pages cannot read. */
  @Post()
  @HttpCode(204)
  @ApiNoContentResponse({ description: 'the key was right' })
  @ApiErrors()
  async open(@Body() { key }: KeyDto, @Res({ passthrough: true }) response: Response): Promise<void> {
    await this.entrance.key?.open(key, response);
  }
}
