import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, type OpenAPIObject, SwaggerModule } from '@nestjs/swagger';
import compression from 'compression';
import express from 'express';
import { Logger } from 'nestjs-pino';
import { door } from './access/door.ts';
import { turns } from './access/turns.ts';
import { AppModule, type ServerOptions } from './app.module.ts';
import { documentSchemas } from './documents/document-schema.ts';
import { bodies } from './documents/bodies.ts';
import { plainBody } from './documents/plain-body.ts';
import { ErrorFilter } from './errors/error.filter.ts';
import { validation } from './errors/validation.ts';
import { wrongMethod } from './errors/wrong-method.ts';
import { headers } from './pages/headers.ts';
import { webFiles, webPages } from './pages/pages.ts';

/** Builds the application, not yet listening. */
export async function createServer(options: ServerOptions): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(options), {
    bufferLogs: true,
    bodyParser: false,
    abortOnError: false,
  });
  app.useLogger(app.get(Logger));
  app.useGlobalPipes(validation());
  app.useGlobalFilters(new ErrorFilter());
  const description = apiDocument(app);
  // answers change too often for a digest of each to be worth its time
  app.set('etag', false);
  // in the order in which a request meets them
  app.use(turns(), door(options.door), headers());
  // set formulas are long and much alike
  app.use('/api/typeset', compression());
  if (options.web !== null) app.use(webFiles(options.web), webPages(options.web));
  app.use(
    bodies(wrongMethod(description), express.raw({ type: 'application/json', limit: '1mb' }), plainBody),
  );
  // other signals, such as SIGILL of a thread that broke, must end the process
  app.enableShutdownHooks(['SIGTERM', 'SIGINT']);
  SwaggerModule.setup('api/docs', app, description, { raw: ['json'] });
  return app;
}

/** What the API is, as an OpenAPI document; the types of the page are made from it. */
export function apiDocument(app: NestExpressApplication): OpenAPIObject {
  const description = new DocumentBuilder()
    .setOpenAPIVersion('3.1.0')
    .setTitle('Schritt')
    .setDescription('Studies, problems and methods')
    .setVersion('1')
    .build();
  const document = SwaggerModule.createDocument(app, description);
  const schemas = { ...document.components?.schemas, ...documentSchemas() };
  return { ...document, components: { ...document.components, schemas } };
}
