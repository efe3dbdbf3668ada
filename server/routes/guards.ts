import { t } from '../../core/words/say.ts';
import type { RequestHandler } from 'express';
import { Problem } from '../problem.ts';

const READS = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Lets no page of another site write anything, cookie or not. A browser says where a request comes from
 * (`Sec-Fetch-Site`; an older one with `Origin`); who says neither is no page.
 */
export const sameSite: RequestHandler = (request, _response, next) => {
  if (READS.has(request.method)) return next();
  const site = request.headers['sec-fetch-site'];
  const { origin } = request.headers;
  const ours =
    site === undefined
      ? origin === undefined || hostOf(origin) === request.host
      : site === 'same-origin' || site === 'none';
  if (!ours)
    throw new Problem(403, 'other-site', t`This request comes from another site. Open Clapboard itself and try again.`);
  next();
};

function hostOf(origin: string): string | undefined {
  try {
    return new URL(origin).host;
  } catch {
    return undefined;
  }
}
