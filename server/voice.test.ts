import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { MOST_WORDS, Voice, type VoiceWord } from '../contract/voice.ts';
import { MOST_SENT, VOICE_RATE } from '../core/listening/voiceFacts.ts';
import { validator } from '../contract/validate.ts';
import type { RunningServer } from './start.ts';
import { Visitor, freshDatabase, serverWithTeachers } from './testServer.test-helper.ts';

let server: RunningServer;
let ann: Visitor;
let ben: Visitor;
beforeAll(async () => {
  server = await serverWithTeachers(await freshDatabase());
  [ann, ben] = [new Visitor(server.url), new Visitor(server.url)];
  await ann.signIn('Ann');
  await ben.signIn('Ben');
});
afterAll(() => server.stop());
beforeEach(() => ann.ask('DELETE', '/api/account/voice'));

const PATH = '/api/account/voice';
const soundOf = (bytes: number, value = 7) => Buffer.alloc(bytes, value).toString('base64');
const word = (name: string, value = 7): VoiceWord => ({ word: name, vowel: 0.1, sound: soundOf(8000, value) });
const keep = (...words: unknown[]) => ann.ask('PUT', `${PATH}/words`, { words });

async function voiceOf(visitor = ann): Promise<Voice> {
  const { status, body } = await visitor.ask('GET', PATH);
  expect(status).toBe(200);
  expect(validator(Voice)(body)).toMatchObject({ ok: true });
  return body as Voice;
}
const namesOf = async (visitor = ann) => (await voiceOf(visitor)).words.map((one) => one.word);

describe('a teacher’s own voice', () => {
  it('is kept word by word, each sign a word of its own, and is nobody else’s', async () => {
    const names = ['1', '&', 'a', 'de/+', 'dieciséis', 'dieciseis', '11'];
    expect((await keep(...names.map((name, i) => word(name, i)))).status).toBe(204);
    expect((await namesOf()).toSorted()).toEqual(names.toSorted());
    expect((await voiceOf()).words.find((one) => one.word === 'de/+')).toEqual(word('de/+', 3));
    expect(await voiceOf(ben)).toEqual({ speaks: true, words: [] });
  });

  it('a word that is said again takes the place of what was said before; any can go, and all', async () => {
    await keep(word('1'), word('2'), word('&'));
    await keep(word('1', 9));
    expect((await voiceOf()).words.find((one) => one.word === '1')).toEqual(word('1', 9));
    expect((await ann.ask('DELETE', `${PATH}/words/${encodeURIComponent('&')}`)).status).toBe(204);
    expect((await ben.ask('DELETE', `${PATH}/words/1`)).status).toBe(204);
    expect(await namesOf()).toEqual(['1', '2']);
    expect((await ben.ask('DELETE', PATH)).status).toBe(204);
    expect(await namesOf()).toEqual(['1', '2']);
    expect((await ann.ask('DELETE', PATH)).status).toBe(204);
    expect(await namesOf()).toEqual([]);
  });

  it('speaks until its teacher says otherwise', async () => {
    expect((await ann.ask('PUT', PATH, { speaks: false })).status).toBe(204);
    expect([(await voiceOf()).speaks, (await voiceOf(ben)).speaks]).toEqual([false, true]);
    await ann.ask('PUT', PATH, { speaks: true });
    expect((await voiceOf()).speaks).toBe(true);
  });

  it.each([
    ['no word at all', []],
    ['a word of nothing', [{ ...word('1'), word: '' }]],
    ['a word with a space', [{ ...word('1'), word: 'one two' }]],
    ['a word as long as a sentence', [{ ...word('1'), word: 'x'.repeat(41) }]],
    ['a sound that is none', [{ ...word('1'), sound: 'not base64!'.repeat(50) }]],
    ['a sound that is too short', [{ ...word('1'), sound: soundOf(20) }]],
    ['a sound that is too long', [{ ...word('1'), sound: soundOf(VOICE_RATE * 2) }]],
    ['half a sample', [{ ...word('1'), sound: soundOf(8001) }]],
    ['a vowel after its end', [{ ...word('1'), vowel: 0.5 }]],
    ['a vowel before its start', [{ ...word('1'), vowel: -0.1 }]],
    ['the same word twice', [word('1'), word('1')]],
    ['too many at once', Array.from({ length: MOST_SENT + 1 }, (_, i) => word(String(i)))],
    ['something beside it', [{ ...word('1'), teacherId: 'x' }]],
  ])('%s is refused', async (_name, words) => {
    expect((await keep(...words)).status).toBe(422);
    expect(await namesOf()).toEqual([]);
  });

  it('has an end: more words than anybody counts with are refused, said again they are not', async () => {
    for (let i = 0; i < MOST_WORDS; i += MOST_SENT) {
      const some = Array.from({ length: Math.min(MOST_SENT, MOST_WORDS - i) }, (_, k) => `w${i + k}`);
      expect((await keep(...some.map((name) => ({ ...word(name), sound: soundOf(6000) })))).status).toBe(204);
    }
    const { status, body } = await keep(word('w1'), word('more'));
    expect([status, JSON.stringify(body)]).toEqual([422, expect.stringContaining('300 words at most')]);
    expect((await keep(word('w1'), word('w2'))).status).toBe(204);
    expect(await namesOf()).toHaveLength(MOST_WORDS);
  });
});
