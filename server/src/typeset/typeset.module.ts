import { Module } from '@nestjs/common';
import { TypesetController } from './typeset.controller.ts';
import { TypesetService } from './typeset.service.ts';

/** Formulas, set for pages. */
@Module({ controllers: [TypesetController], providers: [TypesetService] })
export class TypesetModule {}
