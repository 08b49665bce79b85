import { type DynamicModule, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Job } from './job.entity.ts';
import { JobsController } from './jobs.controller.ts';
import { JobsService } from './jobs.service.ts';
import { JOB_OPTIONS, type JobOptions, StudyPool } from './study-pool.ts';

/** Long studies that the server runs. */
@Module({})
export class JobsModule {
  static with(options: JobOptions): DynamicModule {
    return {
      module: JobsModule,
      imports: [TypeOrmModule.forFeature([Job])],
      controllers: [JobsController],
      providers: [StudyPool, JobsService, { provide: JOB_OPTIONS, useValue: options }],
    };
  }
}
