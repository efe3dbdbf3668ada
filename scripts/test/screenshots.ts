import { mkdirSync } from 'node:fs';
import { chromium } from 'playwright-core';
import { launchOptions } from './browser.ts';
import { withDemoServer } from '../commands/demoServer.ts';
import { AT_REST_MS, PICTURES, PICTURES_FOLDER, PICTURE_SIZE } from './pictures.ts';

await withDemoServer(async (url) => {
  const browser = await chromium.launch(launchOptions());
  const page = await browser.newPage({ viewport: PICTURE_SIZE });
  await page.goto(url);
  mkdirSync(PICTURES_FOLDER, { recursive: true });
  for (const [name, open] of PICTURES) {
    await open(page);
    await page.waitForTimeout(AT_REST_MS);
    const path = `${PICTURES_FOLDER}/${name}.png`;
    await page.screenshot({ path });
    console.log(path);
  }
  await browser.close();
});
