import { type DynamicModule, Module } from '@nestjs/common';
import { DEMO_FOLDER, SeedService } from './seed.service.ts';

/** The demo data, put in once. */
@Module({})
export class DemoModule {
  static with(folder: string | null): DynamicModule {
    return {
      module: DemoModule,
      providers: [SeedService, { provide: DEMO_FOLDER, useValue: folder }],
    };
  }
}
