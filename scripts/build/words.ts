import { LANGUAGE_IDS, SOURCE } from '../../core/words/say.ts';
import { allSentences, readCatalogues, sortedOut, writeCatalogues } from './sentences.ts';

// Puts every message where the rooms look for it, leaves out what nobody says any more, and lists what is missing.

const sentences = allSentences();
for (const language of LANGUAGE_IDS) {
  if (language === SOURCE) continue;
  const { core, web, room, server, cli } = readCatalogues(language);
  const { catalogues, missing } = sortedOut({ ...core, ...web, ...room, ...server, ...cli }, sentences);
  writeCatalogues(language, catalogues);
  console.log(`${language}: ${sentences.length - missing.length} of ${sentences.length} sentences`);
  for (const { key, places } of missing) console.log(`  ${places[0]}  ${JSON.stringify(key)}`);
}
