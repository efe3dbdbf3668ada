import { buildPages } from '../build/buildPages.ts';

/** The pages as they ship, before the browser tests. */
export default async function setup(): Promise<void> {
  await buildPages({ lightly: true });
}
