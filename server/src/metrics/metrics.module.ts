import { type DynamicModule, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Job } from '../jobs/job.entity.ts';
import { MetricsController } from './metrics.controller.ts';
import { MetricsService } from './metrics.service.ts';

/** Figures for those who run a server. */
@Module({})
export class MetricsModule {
  /** @param access the module of sessions */
  static with(access: DynamicModule): DynamicModule {
    return {
      module: MetricsModule,
      imports: [access, TypeOrmModule.forFeature([Job])],
      controllers: [MetricsController],
      providers: [MetricsService],
    };
  }
}
