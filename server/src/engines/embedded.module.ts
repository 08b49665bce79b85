import { type DynamicModule, Module } from '@nestjs/common';
import { EmbeddedEngine } from './embedded-engine.ts';
import { Engine } from './engine.ts';

/** Tasks of jobs are done by this process. */
@Module({})
export class EmbeddedModule {
  /** Threads of this process. */
  static here(): DynamicModule {
    return {
      module: EmbeddedModule,
      global: true,
      providers: [{ provide: Engine, useClass: EmbeddedEngine }],
      exports: [Engine],
    };
  }
}
