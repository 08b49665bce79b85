import { type DynamicModule, Module } from '@nestjs/common';
import { AccessController, ENTRANCE, type Entrance } from './access.controller.ts';

/** Who may come in. */
@Module({})
export class AccessModule {
  static with({ key }: Entrance): DynamicModule {
    return {
      module: AccessModule,
      controllers: [AccessController],
      providers: [{ provide: ENTRANCE, useValue: { key } }],
    };
  }
}
