import { and, eq, sql } from 'drizzle-orm';
import type { Voice, VoiceWord } from '../../contract/voice.ts';
import type { Database } from '../database.ts';
import { teachers, voiceWords } from '../schema.ts';

/** All words of a teacher, in the order of the alphabet. */
export async function findVoice(db: Database, teacherId: string): Promise<Voice> {
  const [teacher] = await db.select({ speaks: teachers.ownVoice }).from(teachers).where(eq(teachers.id, teacherId));
  const rows = await db.select().from(voiceWords).where(eq(voiceWords.teacherId, teacherId)).orderBy(voiceWords.word);
  const words = rows.map(({ word, vowel, sound }) => ({ word, vowel, sound: sound.toString('base64') }));
  return { speaks: teacher?.speaks ?? true, words };
}

/** How many words a teacher will have with some more. */
export async function countWithWords(db: Database, teacherId: string, words: readonly string[]): Promise<number> {
  // Who adds words waits for whoever adds some of the same teacher.
  await db.select({ id: teachers.id }).from(teachers).where(eq(teachers.id, teacherId)).for('update');
  const rows = await db.select({ word: voiceWords.word }).from(voiceWords).where(eq(voiceWords.teacherId, teacherId));
  return new Set([...rows.map(({ word }) => word), ...words]).size;
}

export async function putWords(db: Database, teacherId: string, words: readonly VoiceWord[]): Promise<void> {
  await db
    .insert(voiceWords)
    .values(words.map(({ word, vowel, sound }) => ({ teacherId, word, vowel, sound: Buffer.from(sound, 'base64') })))
    .onDuplicateKeyUpdate({ set: { vowel: sql`values(vowel)`, sound: sql`values(sound)` } });
}

export async function removeWord(db: Database, teacherId: string, word: string): Promise<void> {
  await db.delete(voiceWords).where(and(eq(voiceWords.teacherId, teacherId), eq(voiceWords.word, word)));
}

export async function removeWords(db: Database, teacherId: string): Promise<void> {
  await db.delete(voiceWords).where(eq(voiceWords.teacherId, teacherId));
}

export async function chooseVoice(db: Database, teacherId: string, speaks: boolean): Promise<void> {
  await db.update(teachers).set({ ownVoice: speaks }).where(eq(teachers.id, teacherId));
}
