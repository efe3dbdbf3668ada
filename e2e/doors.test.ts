import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { TEACHER } from '../demo/school.ts';
import { School, lookAround } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

const BEN = { name: 'Ben Moor', password: 'rope and anchor' };

let school: School;
let code: string;

beforeAll(async () => {
  school = await School.open();
  await school.addTeacher(BEN.name, BEN.password);
  code = await school.addTeacher('Cora Lock', 'long forgotten words', true);
});
afterEach(() => school.tidy());
afterAll(() => school.close());

async function fillDoor(page: Page, { name, password }: { name: string; password: string }): Promise<void> {
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill(name);
  await page.getByLabel('Password', { exact: true }).fill(password);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
}

describe('signed out with the page open', () => {
  it('the page asks for its teacher, and nothing typed is lost', async () => {
    const { page, context } = await school.guest();
    await page.getByRole('link', { name: 'Class', exact: true }).click();
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    const row = page.getByLabel('First name or code');
    await row.fill('Zora of the tides');
    await context.clearCookies();
    await row.press('Enter');
    const dialog = page.getByRole('dialog', { name: 'You are signed out' });
    await dialog.waitFor();
    await fillDoor(page, TEACHER);
    await dialog.waitFor({ state: 'detached' });
    expect(await row.inputValue()).toBe('Zora of the tides');
    await row.press('Enter');
    await page.getByRole('link', { name: 'Zora of the tides', exact: true }).waitFor();
  });

  trial('another teacher in a second tab sees and takes nothing of this one', async () => {
    const { page, context } = await school.guest();
    await page.getByRole('link', { name: 'Class', exact: true }).click();
    await page.getByRole('link', { name: /Lighthouse 4/ }).waitFor();
    const second = await context.newPage();
    await second.goto(school.url);
    await second.getByRole('button', { name: /Sign out/ }).click();
    await second.getByRole('button', { name: /Look around/ }).waitFor();
    await fillDoor(second, BEN);
    await second.getByRole('link', { name: BEN.name }).waitFor();
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    await page.getByText(`${BEN.name} is signed in here now`).waitFor();
    await page.getByRole('button', { name: `Go on as ${BEN.name}` }).click();
    await page.getByRole('link', { name: BEN.name }).waitFor();
    expect(await page.getByText('Lighthouse 4').count()).toBe(0);
  });
});

describe('the account', () => {
  trial('takes another password, and a code that was given out chooses one anew', async () => {
    const { page } = await school.visitor();
    await fillDoor(page, BEN);
    await page.getByRole('link', { name: BEN.name }).click();
    await page.getByLabel('Password now').fill(BEN.password);
    await page.getByLabel('New password').fill('password123');
    await page.getByRole('button', { name: 'Change it' }).click();
    await page.getByText('one of the first that are tried').waitFor();
    await page.getByLabel('New password').fill('anchor and rope');
    await page.getByRole('button', { name: 'Change it' }).click();
    await page.getByText('The new password is kept').waitFor();
    await page.getByRole('button', { name: /Sign out/ }).click();
    await page.getByRole('button', { name: 'I was given a code' }).click();
    await page.getByLabel('Name').fill('Cora Lock');
    await page.getByLabel('Code').fill(code);
    await page.getByLabel('New password').fill('words to remember');
    await page.getByRole('button', { name: /Keep the new password/ }).click();
    await page.getByRole('link', { name: 'Cora Lock' }).waitFor();
  });

  trial('takes a passkey, and lets its owner in with it', async () => {
    const { page, context } = await school.visitor();
    // Passkeys belong to a name.
    await page.goto(school.url.replace('127.0.0.1', 'localhost'));
    const devtools = await context.newCDPSession(page);
    await devtools.send('WebAuthn.enable');
    await devtools.send('WebAuthn.addVirtualAuthenticator', {
      options: {
        protocol: 'ctap2',
        transport: 'internal',
        hasResidentKey: true,
        hasUserVerification: true,
        isUserVerified: true,
        automaticPresenceSimulation: true,
      },
    });
    await lookAround(page);
    await page.getByRole('link', { name: TEACHER.name }).click();
    await page.getByLabel('Name of this device').fill('Music room');
    await page.getByRole('button', { name: 'Add a passkey' }).click();
    await page.getByText('Music room, since').waitFor();
    await page.getByRole('button', { name: 'Sign out', exact: true }).click();
    await page.getByRole('button', { name: /Sign in with a passkey/ }).click();
    await page.getByRole('link', { name: TEACHER.name }).click();
    page.on('dialog', (dialog) => void dialog.accept());
    await page.getByRole('button', { name: 'Remove the passkey Music room' }).click();
    await page.getByText('You have none').waitFor();
    await page.getByRole('button', { name: 'Sign out', exact: true }).click();
    await page.getByRole('button', { name: /Sign in with a passkey/ }).click();
    await page.getByText('This passkey does not fit').waitFor();
  });
});
