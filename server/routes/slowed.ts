import type { Request, RequestHandler } from 'express';
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';
import { busy } from '../problem.ts';
import { hash, placeOf } from '../services/addresses.ts';

/** A device asks so often in three seconds at most: its clock thirty times, and then seldom. */
const OF_A_DEVICE = { points: 90, duration: 3 };
/** A class that comes in, all behind one address. */
const OF_A_PLACE = { points: 900, duration: 3 };

/**
 * Whoever asks without end is slowed, and nobody else.
 * @param secretOf  by which a device is known; those without one are counted by their address
 */
export function slowed(secretOf: (request: Request) => string | undefined): RequestHandler {
  const [devices, places] = [new RateLimiterMemory(OF_A_DEVICE), new RateLimiterMemory(OF_A_PLACE)];
  return async (request, _response, next) => {
    const secret = secretOf(request);
    try {
      if (secret) await devices.consume(hash(secret));
      else await places.consume(placeOf(request.ip ?? ''));
    } catch (error) {
      throw error instanceof RateLimiterRes ? busy() : error;
    }
    next();
  };
}
