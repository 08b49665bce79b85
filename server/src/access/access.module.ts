import { type DynamicModule, Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { ThrottlerModule } from '@nestjs/throttler';
import { TypeOrmModule } from '@nestjs/typeorm';
import { AccessController } from './access.controller.ts';
import { AccessGuard } from './access.guard.ts';
import { ACCESS_OPTIONS, type AccessOptions } from './access-options.ts';
import { Session } from './session.entity.ts';
import { SessionsService } from './sessions.service.ts';

/** Sessions, and the guard of all routes. */
@Module({})
export class AccessModule {
  static with(options: AccessOptions): DynamicModule {
    return {
      module: AccessModule,
      imports: [TypeOrmModule.forFeature([Session]), ThrottlerModule.forRoot()],
      controllers: [AccessController],
      providers: [
        SessionsService,
        { provide: ACCESS_OPTIONS, useValue: options },
        { provide: APP_GUARD, useClass: AccessGuard },
      ],
      exports: [SessionsService, ACCESS_OPTIONS],
    };
  }
}
