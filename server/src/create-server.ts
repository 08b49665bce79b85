import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, type OpenAPIObject, SwaggerModule } from '@nestjs/swagger';
import helmet from 'helmet';
import { Logger } from 'nestjs-pino';
import { AppModule, type ServerOptions } from './app.module.ts';
import { documentSchemas } from './documents/document-schema.ts';
import { ErrorFilter } from './errors/error.filter.ts';
import { validation } from './errors/validation.ts';

/**
 * What pages may load: their own files. Compiled loops need 'unsafe-eval'; their source is made of printed
 * numbers and generated names only. KaTeX and the component library set inline styles.
 */
const CONTENT_SECURITY = {
  useDefaults: true,
  directives: {
    'script-src': ["'self'", "'unsafe-eval'"],
    'worker-src': ["'self'"],
    'style-src': ["'self'", "'unsafe-inline'"],
    'font-src': ["'self'", 'data:'],
    'img-src': ["'self'", 'data:', 'blob:'],
    'connect-src': ["'self'"],
    'upgrade-insecure-requests': null,
  },
};

/** Builds the application, not yet listening. */
export async function createServer(options: ServerOptions): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(options), { bufferLogs: true });
  app.useLogger(app.get(Logger));
  app.use(helmet({ contentSecurityPolicy: CONTENT_SECURITY }));
  app.useBodyParser('json', { limit: '1mb' });
  app.useGlobalPipes(validation());
  app.useGlobalFilters(new ErrorFilter());
  app.enableShutdownHooks();
  SwaggerModule.setup('api/docs', app, apiDocument(app));
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
