import { type DynamicModule, Module } from '@nestjs/common';
import { RequestPool } from './request-pool.ts';
import { TaskPool } from './task-pool.ts';
import { THREAD_OPTIONS, type ThreadOptions } from './thread-options.ts';

/** Worker threads for all heavy work. */
@Module({})
export class ThreadsModule {
  static with(options: ThreadOptions): DynamicModule {
    return {
      module: ThreadsModule,
      global: true,
      providers: [RequestPool, TaskPool, { provide: THREAD_OPTIONS, useValue: options }],
      exports: [RequestPool, TaskPool, THREAD_OPTIONS],
    };
  }
}
