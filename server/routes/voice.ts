import { Router } from 'express';
import { SpeakWith, VoiceWords } from '../../contract/voice.ts';
import type { Database } from '../database.ts';
import { chooseVoice, findVoice, keepWords, removeWord, removeWords } from '../services/voice.ts';
import { bodyOf } from './body.ts';
import { teacherIn } from './session.ts';

/** A teacher's own voice: nobody else's in any way. */
export function voiceRoutes(db: Database): Router {
  const [words, choice] = [bodyOf(VoiceWords), bodyOf(SpeakWith)];
  return Router()
    .get('/', async (_request, response) => {
      response.json(await findVoice(db, teacherIn(response).id));
    })
    .put('/', async (request, response) => {
      await chooseVoice(db, teacherIn(response).id, choice(request).speaks);
      response.status(204).end();
    })
    .delete('/', async (_request, response) => {
      await removeWords(db, teacherIn(response).id);
      response.status(204).end();
    })
    .put('/words', async (request, response) => {
      await keepWords(db, teacherIn(response).id, words(request).words);
      response.status(204).end();
    })
    .delete('/words/:word', async (request, response) => {
      await removeWord(db, teacherIn(response).id, String(request.params.word));
      response.status(204).end();
    });
}
