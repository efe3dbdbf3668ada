import { existsSync } from 'node:fs';
import type { LaunchOptions } from 'playwright-core';

/** Debian's Chromium without the window around each page, which would cost a third as much again; else all of it. */
const BROWSERS = ['chromium-headless-shell', 'chromium', 'chromium-browser', 'google-chrome'];

/**
 * Debian's Chromium, quiet and headless; CHROMIUM names another.
 * @param more  further switches
 */
export function launchOptions(more: readonly string[] = []): LaunchOptions {
  const executablePath =
    process.env['CHROMIUM'] ??
    BROWSERS.map((name) => `/usr/bin/${name}`).find((path) => existsSync(path)) ??
    'chromium';
  return {
    executablePath,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--autoplay-policy=no-user-gesture-required',
      ...more,
    ],
  };
}
