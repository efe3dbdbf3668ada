import type { AddressInfo } from 'node:net';
import express from 'express';
import { SignJWT, calculateJwkThumbprint, exportJWK, generateKeyPair } from 'jose';
import { calculatePKCECodeChallenge } from 'openid-client';

/** A provider of OpenID Connect in a few lines, for tests: everybody is who the test says. */
export interface StandInProvider {
  readonly issuer: URL;
  readonly clientId: string;
  readonly clientSecret: string;
  /** Who says yes there next. */
  person: { sub: string; name?: string };
  /** What it does wrong, to see that nobody gets in by it. */
  wrong: 'nothing' | 'nonce' | 'audience' | 'issuer' | 'key' | 'expired';
  readonly close: () => Promise<void>;
}

export async function standInProvider(): Promise<StandInProvider> {
  const [key, foreign] = [await generateKeyPair('RS256'), await generateKeyPair('RS256')];
  const jwk = await exportJWK(key.publicKey);
  const kid = await calculateJwkThumbprint(jwk);
  const asked = new Map<string, { nonce: string; challenge: string; redirect: string; sub: string; name?: string }>();
  const app = express();
  const listening = app.listen(0, '127.0.0.1');
  await new Promise((done) => listening.once('listening', done));
  const issuer = `http://127.0.0.1:${(listening.address() as AddressInfo).port}`;
  const provider: StandInProvider = {
    issuer: new URL(issuer),
    clientId: 'clapboard',
    clientSecret: 'a secret of tests',
    person: { sub: 'one' },
    wrong: 'nothing',
    close: () => new Promise((done) => listening.close(() => done())),
  };
  app.get('/.well-known/openid-configuration', (_request, response) => {
    response.json({
      issuer,
      authorization_endpoint: `${issuer}/authorize`,
      token_endpoint: `${issuer}/token`,
      jwks_uri: `${issuer}/jwks`,
      response_types_supported: ['code'],
      subject_types_supported: ['public'],
      id_token_signing_alg_values_supported: ['RS256'],
    });
  });
  app.get('/jwks', (_request, response) => void response.json({ keys: [{ ...jwk, kid, alg: 'RS256', use: 'sig' }] }));
  app.get('/authorize', (request, response) => {
    const { state, nonce, code_challenge: challenge, redirect_uri: redirect } = request.query as Record<string, string>;
    const code = `code-${asked.size + 1}`;
    asked.set(code, { nonce: nonce!, challenge: challenge!, redirect: redirect!, ...provider.person });
    const back = new URL(redirect!);
    back.searchParams.set('code', code);
    back.searchParams.set('state', state!);
    response.redirect(back.href);
  });
  app.post('/token', express.urlencoded({ extended: false }), async (request, response) => {
    const { code, code_verifier: verifier, redirect_uri: redirect } = request.body as Record<string, string>;
    const grant = asked.get(code ?? '');
    asked.delete(code ?? '');
    const fits =
      grant?.redirect === redirect && grant?.challenge === (await calculatePKCECodeChallenge(verifier ?? ''));
    if (!grant || !fits) return void response.status(400).json({ error: 'invalid_grant' });
    const { wrong } = provider;
    const now = Math.floor(Date.now() / 1000) - (wrong === 'expired' ? 7200 : 0);
    const token = await new SignJWT({ nonce: wrong === 'nonce' ? 'another' : grant.nonce, name: grant.name })
      .setProtectedHeader({ alg: 'RS256', kid })
      .setIssuer(wrong === 'issuer' ? 'https://elsewhere.example' : issuer)
      .setSubject(grant.sub)
      .setAudience(wrong === 'audience' ? 'somebody else' : provider.clientId)
      .setIssuedAt(now)
      .setExpirationTime(now + 3600)
      .sign(wrong === 'key' ? foreign.privateKey : key.privateKey);
    response.json({ access_token: 'x', token_type: 'Bearer', id_token: token });
  });
  return provider;
}
