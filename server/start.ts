import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { createApp } from './app.ts';
import type { Config } from './config.ts';
import { expireRecordings } from './services/recordings.ts';
import { migrateDatabase, openDatabase } from './database.ts';
import { renewResults } from './services/judging.ts';

export interface RunningServer {
  readonly url: string;
  /** Lets running requests finish, then closes the database. */
  stop(): Promise<void>;
}

/** Brings the database up to date and answers requests. Port 0 takes any free one. */
export async function startServer(config: Config): Promise<RunningServer> {
  const logger = pino({ level: config.logLevel });
  const { db, pool } = openDatabase(config.databaseUrl);
  await migrateDatabase({ pool });
  const renewing = new AbortController();
  const renewed = renewResults(db, renewing.signal, (error, take) =>
    logger.error({ err: error, take }, 'a take could not be judged again'),
  );
  const stopExpiring = expireRecordings(db, (error) => logger.error({ err: error }, 'recordings could not be deleted'));
  const app = createApp(db, config, logger);
  const server = await new Promise<Server>((resolve, reject) => {
    const listening: Server = app.listen(config.port, config.host, (error?: Error) =>
      error ? reject(error) : resolve(listening),
    );
  });
  const { port } = server.address() as AddressInfo;
  const url = `http://${config.host}:${port}`;
  logger.info({ url }, 'listening');
  return {
    url,
    stop: async () => {
      stopExpiring();
      await new Promise<void>((resolve) => {
        server.close(() => resolve());
        server.closeIdleConnections();
        setTimeout(() => server.closeAllConnections(), 3_000).unref();
      });
      renewing.abort();
      await renewed;
      await pool.end();
    },
  };
}
