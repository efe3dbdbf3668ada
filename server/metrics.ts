import { timingSafeEqual } from 'node:crypto';
import type { RequestHandler } from 'express';
import ipaddr from 'ipaddr.js';
import { Counter, Gauge, Histogram, Registry, collectDefaultMetrics } from 'prom-client';
import { type Pool, collisions, corePool } from './database.ts';
import type { ClassNews } from './services/news.ts';

/** Seconds: what is stored within a quarter of one is soon enough; after ten nobody waits any more. */
const BUCKETS = [0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10];

/** Numbers of one server, for whoever watches over it. */
export interface Metrics {
  /** Counts every answer, by the route and never by the address: there are ids in it. */
  readonly counted: RequestHandler;
  /** All of them as text. */
  readonly text: () => Promise<string>;
  readonly type: string;
}

/** The driver's own counts of its connections. */
interface Connections {
  readonly _allConnections: { readonly length: number };
  readonly _freeConnections: { readonly length: number };
  readonly _connectionQueue: { readonly length: number };
}

export function metricsOf(pool: Pool, news: Pick<ClassNews, 'watched'>): Metrics {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry, prefix: 'clapboard_' });
  const registers = [registry];
  const seconds = new Histogram({
    name: 'clapboard_request_seconds',
    help: 'How long requests took, by method, route and status',
    labelNames: ['method', 'route', 'status'],
    buckets: BUCKETS,
    registers,
  });
  const takes = new Counter({ name: 'clapboard_takes_stored_total', help: 'Takes that were stored', registers });
  const { _allConnections, _freeConnections, _connectionQueue } = corePool(pool) as unknown as Connections;
  const now = (name: string, help: string, count: () => number) =>
    new Gauge({
      name,
      help,
      registers,
      collect() {
        this.set(count());
      },
    });
  now('clapboard_database_connections', 'Connections to the database', () => _allConnections.length);
  now('clapboard_database_connections_free', 'Those of them that nobody uses', () => _freeConnections.length);
  now('clapboard_database_waiting', 'Requests that wait for a connection', () => _connectionQueue.length);
  now('clapboard_collisions', 'Transactions done again since the start, for another came in between', collisions);
  now('clapboard_classes_watched', 'Classes that somebody has in view', news.watched);
  const counted: RequestHandler = (request, response, next) => {
    const end = seconds.startTimer();
    response.on('finish', () => {
      const { method, baseUrl } = request;
      const path = (request.route as { path?: unknown } | undefined)?.path;
      const route = typeof path === 'string' ? baseUrl + path : baseUrl || 'pages';
      end({ method, route, status: response.statusCode });
      if (method === 'PUT' && route === '/api/takes/:takeId' && response.statusCode === 201) takes.inc();
    });
    next();
  };
  return { counted, text: () => registry.metrics(), type: registry.contentType };
}

export interface MetricsAccess {
  /** Whoever knows it may read them: `Authorization: Bearer …`. */
  readonly token: string | undefined;
  /** Addresses and networks from which they may be read. */
  readonly from: readonly string[];
}

/** Those who may read the metrics; to everybody else there is nothing at this address. */
export function mayRead({ token, from }: MetricsAccess, authorization: string | undefined, address: string): boolean {
  if (token !== undefined && authorization !== undefined && same(authorization, `Bearer ${token}`)) return true;
  return ipaddr.isValid(address) && from.some((network) => isIn(address, network));
}

function same(a: string, b: string): boolean {
  const [left, right] = [Buffer.from(a), Buffer.from(b)];
  return left.length === right.length && timingSafeEqual(left, right);
}

/** @param network  an address, or one with the length of its prefix (10.0.0.0/8) */
function isIn(address: string, network: string): boolean {
  const one = ipaddr.process(address);
  const [base, length] = networkOf(network);
  return one.kind() === base.kind() && one.match(base, length);
}

/** Throws an Error for what is no network. */
export function networkOf(network: string): [ipaddr.IPv4 | ipaddr.IPv6, number] {
  if (network.includes('/')) return ipaddr.parseCIDR(network);
  const one = ipaddr.process(network);
  return [one, one.kind() === 'ipv4' ? 32 : 128];
}
