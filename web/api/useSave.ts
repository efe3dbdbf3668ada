import { useId } from 'react';
import useSWRMutation from 'swr/mutation';
import { ApiProblem } from './client.ts';
import { useRefresh } from './useRefresh.ts';

export interface Save<Arg> {
  /** @returns true when it is saved; else `problem` says why not, and what was typed stays */
  readonly save: (arg: Arg) => Promise<boolean>;
  readonly saving: boolean;
  readonly problem: Error | undefined;
}

/** The library's types forbid an argument that may be nothing, so it is sent in a box. */
interface Sent<Arg> {
  readonly arg: Arg;
}

/**
 * Sends something to the server: what went wrong is kept for the notice beside it, and what it changed is fetched
 * again.
 * @param refreshes  paths under which something is another now
 */
export function useSave<Arg = void>(action: (arg: Arg) => Promise<unknown>, ...refreshes: string[]): Save<Arg> {
  const refresh = useRefresh();
  const send = async (_key: string, { arg: { arg } }: { readonly arg: Sent<Arg> }) => {
    try {
      await action(arg);
    } catch (error) {
      // What somebody else made of it meanwhile is to be seen beside the words that tell of it.
      if (error instanceof ApiProblem && error.status === 409) await refresh(...refreshes);
      throw error;
    }
    await refresh(...refreshes);
    return true;
  };
  const { trigger, isMutating, error } = useSWRMutation<boolean, Error, string, Sent<Arg>>(useId(), send, {
    throwOnError: false,
    populateCache: false,
    revalidate: false,
  });
  return { save: async (arg) => (await trigger({ arg })) === true, saving: isMutating, problem: error };
}
