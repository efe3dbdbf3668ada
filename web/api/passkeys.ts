import { perLanguage, t } from '../../core/words/say.ts';
import type { PasskeyRequest, SessionState } from '../../contract/session.ts';
import { ApiProblem, post } from './client.ts';

const NOTHING_CAME = perLanguage(
  () => t`No passkey came of it: it was cancelled, took too long, or there is none for this site here.`,
);

/** Lets the browser ask for a key; that somebody cancels is said in our words. */
async function asked<T>(ask: () => Promise<T>): Promise<T> {
  try {
    return await ask();
  } catch {
    throw new ApiProblem(0, 'no-passkey', NOTHING_CAME());
  }
}

export async function signInWithPasskey(): Promise<SessionState> {
  const { startAuthentication } = await import('@simplewebauthn/browser');
  const { challengeId, options } = (await post('/session/passkey/options', {})) as PasskeyRequest;
  const answer = await asked(() => startAuthentication({ optionsJSON: options as never }));
  return (await post('/session/passkey', { challengeId, answer })) as SessionState;
}

/** @param name  what the teacher calls the device */
export async function addPasskey(name: string): Promise<void> {
  const { startRegistration } = await import('@simplewebauthn/browser');
  const { challengeId, options } = (await post('/account/passkeys/options', {})) as PasskeyRequest;
  const { id, rawId, type, clientExtensionResults, response } = await asked(() =>
    startRegistration({ optionsJSON: options as never }),
  );
  const { clientDataJSON, attestationObject, transports } = response;
  const answer = {
    id,
    rawId,
    type,
    clientExtensionResults,
    response: { clientDataJSON, attestationObject, transports },
  };
  await post('/account/passkeys', { challengeId, name, answer });
}
