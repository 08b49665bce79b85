import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import helmet from 'helmet';
import { Logger } from 'nestjs-pino';
import { AppModule, type ServerOptions } from './app.module.ts';
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
  const description = new DocumentBuilder()
    .setTitle('Schritt')
    .setDescription('Studies, problems and methods')
    .setVersion('1')
    .build();
  SwaggerModule.setup('api/docs', app, SwaggerModule.createDocument(app, description));
  return app;
}
