import { matchPath } from 'react-router';
import { describe, expect, it } from 'vitest';
import { ROUTES } from '../routes.ts';
import { HELP } from './helpTexts.ts';

describe('help', () => {
  it.each(ROUTES().map(({ path }) => path))('there is one for %s, and it is its own', (path) => {
    const address = `/${path.replace(/:(\w+)/g, 'x')}`;
    expect(HELP().find((one) => matchPath(`/${one.path}`, address))?.path).toBe(path);
  });
  it('knows no view that is not there', () => {
    expect(HELP().filter(({ path }) => !ROUTES().some((route) => route.path === path))).toEqual([]);
  });
});
