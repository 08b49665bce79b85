import { type DynamicModule, Module } from '@nestjs/common';
import { EmbeddedEngine } from './embedded-engine.ts';
import { Engine } from './engine.ts';

/** What does the tasks of jobs. */
@Module({})
export class EnginesModule {
  /** Threads of this process. */
  static embedded(): DynamicModule {
    return {
      module: EnginesModule,
      global: true,
      providers: [{ provide: Engine, useClass: EmbeddedEngine }],
      exports: [Engine],
    };
  }
}
