import { Inject, Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import type { Repository } from 'typeorm';
import { Engine } from '../engines/engine.ts';
import { Job } from '../jobs/job.entity.ts';

/** Bounds of the times of answers, in seconds. */
const SECONDS = [0.005, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10];

/** Figures of this server in the format of Prometheus. */
@Injectable()
export class MetricsService {
  readonly #registry = new Registry();
  readonly #requests: Histogram<'method' | 'route' | 'status'>;

  constructor(@InjectRepository(Job) jobs: Repository<Job>, @Inject(Engine) engine: Engine) {
    const registers = [this.#registry];
    collectDefaultMetrics({ register: this.#registry });
    this.#requests = new Histogram({
      name: 'schritt_request_seconds',
      help: 'times of answers by route',
      labelNames: ['method', 'route', 'status'],
      buckets: SECONDS,
      registers,
    });
    new Gauge({
      name: 'schritt_jobs',
      help: 'stored jobs by state',
      labelNames: ['state'],
      registers,
      async collect() {
        const rows: readonly { readonly state: string; readonly count: number }[] = await jobs
          .createQueryBuilder('job')
          .select('job.state', 'state')
          .addSelect('count(*)', 'count')
          .groupBy('job.state')
          .getRawMany();
        this.reset();
        for (const { state, count } of rows) this.set({ state }, count);
      },
    });
    new Gauge({
      name: 'schritt_workers',
      help: 'workers at the queue; 0 where the server does long studies itself',
      registers,
      collect() {
        this.set(engine.state.workers ?? 0);
      },
    });
    new Gauge({
      name: 'schritt_queue_reached',
      help: '1 where the queue is reached, or there is none',
      registers,
      collect() {
        this.set(engine.state.isReached ? 1 : 0);
      },
    });
  }

  get contentType(): string {
    return this.#registry.contentType;
  }

  async text(): Promise<string> {
    return this.#registry.metrics();
  }

  /** Measures every request; of its address only the route is kept, so that no link of a shared study is. */
  middleware(): RequestHandler {
    return (request: Request, response: Response, next: NextFunction) => {
      const end = this.#requests.startTimer();
      response.on('finish', () => {
        const route: unknown = request.route;
        const path =
          typeof route === 'object' && route !== null && 'path' in route ? String(route.path) : 'page';
        end({ method: request.method, route: path, status: String(response.statusCode) });
      });
      next();
    };
  }
}
