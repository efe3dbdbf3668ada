import { demandNode } from '../../server/nodeVersion.ts';

demandNode();
const [
  { networkInterfaces },
  { joinAddresses },
  { configFrom },
  { startServer },
  { startedOrSaid },
  { projectDatabase },
  { untilStopped },
] = await Promise.all([
  import('node:os'),
  import('../../server/joinAddresses.ts'),
  import('../../server/config.ts'),
  import('../../server/start.ts'),
  import('../../server/starting.ts'),
  import('./mariadb.ts'),
  import('./untilStopped.ts'),
]);

// The server of a school: no demo, the database that DATABASE_URL names, or one of its own.
const { server, database } = await startedOrSaid(async () => {
  const own = await projectDatabase('.data/school');
  try {
    return { database: own, server: await startServer(configFrom({ ...process.env, DATABASE_URL: own.url })) };
  } catch (error) {
    await own.stop();
    throw error;
  }
});
const addresses = joinAddresses(server.url, networkInterfaces());
console.log(
  addresses.length > 0
    ? `\n  Children's own devices: ${addresses.join('  or  ')}\n`
    : '\n  Children’s own devices do not reach this server: start it with HOST=0.0.0.0\n',
);
await untilStopped();
await server.stop();
await database.stop();
process.exit(0);
