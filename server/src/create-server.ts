import type { DynamicModule } from '@nestjs/common';
import { NestFactory, Reflector } from '@nestjs/core';
import { ExpressAdapter, type NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, type OpenAPIObject, SwaggerModule } from '@nestjs/swagger';
import express from 'express';
import { Logger } from 'nestjs-pino';
import { sessionRequired } from './access/access.guard.ts';
import { hostGuard } from './access/host-guard.ts';
import { SessionsService } from './access/sessions.service.ts';
import { throttle } from './access/throttle.ts';
import { AppModule, type ServerOptions } from './app.module.ts';
import { EmbeddedModule } from './engines/embedded.module.ts';
import { documentSchemas } from './documents/document-schema.ts';
import { EntriesService } from './entries/entries.service.ts';
import { MetricsService } from './metrics/metrics.service.ts';
import { ErrorFilter } from './errors/error.filter.ts';
import { validation } from './errors/validation.ts';
import { wrongMethod } from './errors/wrong-method.ts';
import { headers } from './pages/headers.ts';
import { JsonBodyInterceptor } from './requests/json-body.ts';
import { FirstPictures } from './pages/first-pictures.ts';
import { pageTemplate } from './pages/page-template.ts';
import { compressedPages, type PicturedPage, webFiles, webPages } from './pages/pages.ts';
import { RequestPool } from './threads/request-pool.ts';

/** Where the API describes itself; mounted beside the controllers, and closed like their routes. */
const DOCUMENTATION = ['/api/docs', '/api/docs-json'];

/** What does long studies: threads of this process, or workers at a queue. */
async function engineModule(queue: string | null): Promise<DynamicModule> {
  if (queue === null) return EmbeddedModule.here();
  // most servers need none of it
  const { QueueModule } = await import('./engines/queue/queue.module.ts');
  return QueueModule.with(queue);
}

/** Pages of studies with their first pictures, where the built page has what makes them. */
function picturedPage(app: NestExpressApplication, web: string): PicturedPage {
  const template = pageTemplate(web);
  if (template === null) return () => Promise.resolve(null);
  const pictures = new FirstPictures({
    entries: app.get(EntriesService),
    sessions: app.get(SessionsService),
    pool: app.get(RequestPool),
    program: template.program,
  });
  return async (request) => {
    const picture = await pictures.of(request);
    return picture && template.withPicture(picture);
  };
}

/** Builds the application, not yet listening. */
export async function createServer(options: ServerOptions): Promise<NestExpressApplication> {
  const http = express();
  // a path has one spelling: what guards it sees the same path as what answers it
  http.enable('case sensitive routing');
  http.enable('strict routing');
  const app = await NestFactory.create<NestExpressApplication>(
    AppModule.with(options, await engineModule(options.queue)),
    new ExpressAdapter(http),
    {
      bufferLogs: true,
      bodyParser: false,
      abortOnError: false,
    },
  );
  app.useLogger(app.get(Logger));
  app.useGlobalInterceptors(new JsonBodyInterceptor(app.get(Reflector)));
  app.useGlobalPipes(validation());
  app.useGlobalFilters(new ErrorFilter());
  const description = apiDocument(app);
  // answers change too often for a digest of each to be worth its time
  app.set('etag', false);
  app.set('trust proxy', options.access.proxies);
  // in the order in which a request meets them
  app.use(app.get(MetricsService).middleware(), throttle(), hostGuard(options.access), headers());
  if (options.web !== null)
    app.use(compressedPages(), webFiles(options.web), webPages(options.web, picturedPage(app, options.web)));
  app.use(wrongMethod(description));
  // other signals, such as SIGILL of a thread that broke, must end the process
  app.enableShutdownHooks(['SIGTERM', 'SIGINT']);
  app.use(DOCUMENTATION, sessionRequired(app.get(SessionsService)));
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
