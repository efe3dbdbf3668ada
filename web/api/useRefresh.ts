import { useSWRConfig } from 'swr';

/** Fetches again whatever stands under these paths. */
export function useRefresh(): (...prefixes: string[]) => Promise<unknown> {
  const { mutate } = useSWRConfig();
  return (...prefixes) => mutate((key) => typeof key === 'string' && prefixes.some((prefix) => key.startsWith(prefix)));
}
