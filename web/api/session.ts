import fitsSession from 'virtual:fits/session';
import type { SessionState } from '../../contract/session.ts';
import { useGet } from './useGet.ts';

/** Who is signed in. By itself, so that the door loads nothing of the house behind it. */
export const useSession = () => useGet<SessionState>('/session', fitsSession, { revalidateOnFocus: false });
