import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { MethodsController, ProblemsController, StudiesController } from './entries.controller.ts';
import { EntriesService } from './entries.service.ts';
import { Entry } from './entry.entity.ts';
import { ReportService } from './report.service.ts';
import { ShownController } from './shown.controller.ts';

/** Studies, problems and methods as they are stored. */
@Module({
  imports: [TypeOrmModule.forFeature([Entry])],
  controllers: [StudiesController, ProblemsController, MethodsController, ShownController],
  providers: [EntriesService, ReportService],
})
export class EntriesModule {}
