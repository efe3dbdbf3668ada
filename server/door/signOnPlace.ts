import { type Configuration, allowInsecureRequests, discovery, enableNonRepudiationChecks } from 'openid-client';
import type { SignOnPlace } from '../config.ts';

/** Where another place vouches for teachers: OpenID Connect, with a code and PKCE. */
export interface SignOn {
  readonly name: string;
  /** What the other place says of itself; asked once, and again where that failed. */
  readonly place: () => Promise<Configuration>;
}

export function signOnAt(at: SignOnPlace | undefined): SignOn | undefined {
  if (!at) return undefined;
  const { issuer, clientId, clientSecret, name } = at;
  let asked: Promise<Configuration> | undefined;
  // Plain http is only let in for a place on this machine (config.ts).
  const plain = issuer.protocol === 'http:' ? [allowInsecureRequests] : [];
  // What is said of a person is signed: it is looked at, whatever the connection.
  const execute = [enableNonRepudiationChecks, ...plain];
  const place = () => {
    asked ??= discovery(issuer, clientId, clientSecret, undefined, { execute });
    asked.catch(() => (asked = undefined));
    return asked;
  };
  return { name, place };
}
