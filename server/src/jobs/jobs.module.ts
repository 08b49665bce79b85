import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Job } from './job.entity.ts';
import { JobsController } from './jobs.controller.ts';
import { JobsService } from './jobs.service.ts';

/** Long studies that the server runs. */
@Module({
  imports: [TypeOrmModule.forFeature([Job])],
  controllers: [JobsController],
  providers: [JobsService],
})
export class JobsModule {}
