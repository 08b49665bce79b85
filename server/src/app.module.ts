import { type DynamicModule, Module, RequestMethod } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { LoggerModule } from 'nestjs-pino';
import { LOGGED } from './logged.ts';
import { AccessModule } from './access/access.module.ts';
import type { AccessOptions } from './access/access-options.ts';
import { DemoModule } from './demo/demo.module.ts';
import { EntriesModule } from './entries/entries.module.ts';
import { HealthController } from './health.controller.ts';
import { JobsModule } from './jobs/jobs.module.ts';
import { MetricsModule } from './metrics/metrics.module.ts';
import { storeOptions } from './store/store-options.ts';
import type { ThreadOptions } from './threads/thread-options.ts';
import { ThreadsModule } from './threads/threads.module.ts';

/** What a server is started with. */
export interface ServerOptions {
  /** The SQLite file, or ":memory:". */
  readonly database: string;
  /** Folder of the demo files; null for none. */
  readonly demo: string | null;
  /** Folder of the built web application; null for a server of the API alone. */
  readonly web: string | null;
  readonly threads: ThreadOptions;
  readonly access: AccessOptions;
  /** Address of the queue of workers; null where the server does long studies itself. */
  readonly queue: string | null;
  readonly logLevel: 'silent' | 'warn' | 'info';
}

@Module({})
export class AppModule {
  static with(
    { database, demo, threads, access, logLevel }: ServerOptions,
    engine: DynamicModule,
  ): DynamicModule {
    const sessions = AccessModule.with(access);
    return {
      module: AppModule,
      imports: [
        LoggerModule.forRoot({
          pinoHttp: { level: logLevel, autoLogging: logLevel === 'info', serializers: LOGGED },
          // requests are logged one by one only on request
          forRoutes: logLevel === 'info' ? [{ path: '{*splat}', method: RequestMethod.ALL }] : [],
        }),
        // a store that cannot be opened now cannot be opened in three seconds either
        TypeOrmModule.forRoot({ ...storeOptions(database), retryAttempts: 0 }),
        sessions,
        ThreadsModule.with(threads),
        engine,
        EntriesModule,
        JobsModule,
        MetricsModule.with(sessions),
        DemoModule.with(demo),
      ],
      controllers: [HealthController],
    };
  }
}
