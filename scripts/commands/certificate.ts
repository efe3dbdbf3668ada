import { mkdirSync, writeFileSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { madeCertificate, ownAddresses } from './madeCertificate.ts';

// A certificate of one's own for the classroom's network: `npm run certificate -- [more names or addresses]`.

const FOLDER = '.data/certificate';
const names = [...ownAddresses(networkInterfaces()), ...process.argv.slice(2)];
const { cert, key } = await madeCertificate(names);
mkdirSync(FOLDER, { recursive: true, mode: 0o700 });
const [certAt, keyAt] = [join(FOLDER, 'cert.pem'), join(FOLDER, 'key.pem')];
writeFileSync(certAt, cert);
writeFileSync(keyAt, key, { mode: 0o600 });
console.log(`
  A certificate for ${names.join(', ')}, for 13 months: ${certAt}
  Start with it:

  HOST=0.0.0.0 TLS_CERT=${certAt} TLS_KEY=${keyAt} npm start

  It is nobody else's word for this server: each device asks once whether to go on, and then has its microphone.
  Where this machine gets another address, make it anew.
`);
