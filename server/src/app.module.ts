import { type DynamicModule, Module, RequestMethod } from '@nestjs/common';
import { ServeStaticModule } from '@nestjs/serve-static';
import { TypeOrmModule } from '@nestjs/typeorm';
import { LoggerModule } from 'nestjs-pino';
import { DemoModule } from './demo/demo.module.ts';
import { EntriesModule } from './entries/entries.module.ts';
import { HealthController } from './health.controller.ts';
import { JobsModule } from './jobs/jobs.module.ts';
import type { JobOptions } from './jobs/study-pool.ts';
import { storeOptions } from './store-options.ts';

/** What a server is started with. */
export interface ServerOptions {
  /** The SQLite file, or ":memory:". */
  readonly database: string;
  /** Folder of the demo files; null for none. */
  readonly demo: string | null;
  /** Folder of the built web application; null for a server of the API alone. */
  readonly web: string | null;
  readonly jobs: JobOptions;
  readonly logLevel: 'silent' | 'warn' | 'info';
}

@Module({})
export class AppModule {
  static with({ database, demo, web, jobs, logLevel }: ServerOptions): DynamicModule {
    return {
      module: AppModule,
      imports: [
        LoggerModule.forRoot({
          pinoHttp: {
            level: logLevel,
            autoLogging: { ignore: (request) => !(request.url ?? '').startsWith('/api') },
          },
          forRoutes: [{ path: '{*splat}', method: RequestMethod.ALL }],
        }),
        TypeOrmModule.forRoot(storeOptions(database)),
        EntriesModule,
        JobsModule.with(jobs),
        DemoModule.with(demo),
        ...(web === null ? [] : [ServeStaticModule.forRoot({ rootPath: web, exclude: ['/api/{*rest}'] })]),
      ],
      controllers: [HealthController],
    };
  }
}
