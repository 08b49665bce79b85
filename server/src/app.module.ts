import { type DynamicModule, Module, RequestMethod } from '@nestjs/common';
import { ServeStaticModule } from '@nestjs/serve-static';
import { TypeOrmModule } from '@nestjs/typeorm';
import { LoggerModule } from 'nestjs-pino';
import { DEMO_FOLDER, SeedService } from './demo/seed.service.ts';
import { MethodsController, ProblemsController, StudiesController } from './entries/entries.controller.ts';
import { EntriesService } from './entries/entries.service.ts';
import { ReportService } from './entries/report.service.ts';
import { Job } from './jobs/job.entity.ts';
import { JobsController } from './jobs/jobs.controller.ts';
import { JobsService } from './jobs/jobs.service.ts';
import { JOB_OPTIONS, type JobOptions, StudyPool } from './jobs/study-pool.ts';
import { HealthController } from './health.controller.ts';
import { Entry } from './store/entry.entity.ts';
import { Seed } from './store/seed.entity.ts';
import { storeOptions } from './store/store-options.ts';

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
  static with(options: ServerOptions): DynamicModule {
    const { database, demo, web, jobs, logLevel } = options;
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
        TypeOrmModule.forFeature([Entry, Seed, Job]),
        ...(web === null ? [] : [ServeStaticModule.forRoot({ rootPath: web, exclude: ['/api/{*rest}'] })]),
      ],
      controllers: [
        StudiesController,
        ProblemsController,
        MethodsController,
        JobsController,
        HealthController,
      ],
      providers: [
        EntriesService,
        ReportService,
        SeedService,
        StudyPool,
        JobsService,
        { provide: DEMO_FOLDER, useValue: demo },
        { provide: JOB_OPTIONS, useValue: jobs },
      ],
    };
  }
}
