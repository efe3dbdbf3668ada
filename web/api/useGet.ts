import useSWR, { type SWRConfiguration } from 'swr';
import { type ApiProblem, get } from './client.ts';

/** What stands at a path of the server, checked when it arrives; null asks for nothing. */
export function useGet<T>(
  path: string | null,
  fits: (data: unknown) => boolean,
  options?: SWRConfiguration<T, ApiProblem>,
) {
  return useSWR<T, ApiProblem>(path, (key: string) => get<T>(key, fits), options);
}
