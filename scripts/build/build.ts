import { buildPages } from './buildPages.ts';
import { buildServer } from './buildServer.ts';

await Promise.all([buildPages(), buildServer()]);
