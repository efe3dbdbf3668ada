import { mutate } from 'swr';
import type { SessionState, Teacher } from '../../../contract/session.ts';
import { LANGUAGES, LANGUAGE_IDS, type Language, t } from '../../../core/words/say.ts';
import { put } from '../../api/client.ts';
import { useSave } from '../../api/useSave.ts';
import { Notice } from '../../ui/Notice.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { speakHere } from '../../words/language.ts';

const AS_BROWSER = '';

/** The language of all pages, on every device on which this teacher signs in. */
export function LanguageForm({ teacher }: { teacher: Teacher }) {
  const choice = useSave(async (language: Language | null) => {
    await put('/account/language', { language });
    const told = (state: SessionState | undefined) =>
      state?.teacher ? { ...state, teacher: { ...state.teacher, language } } : state;
    await mutate<SessionState>('/session', told, { revalidate: false });
    await speakHere(language ?? undefined);
  });
  return (
    <section className="card-paper">
      <h2>{t`Language`}</h2>
      <SelectField
        id="account-language"
        label={t`Language of the pages`}
        value={teacher.language ?? AS_BROWSER}
        options={[
          [AS_BROWSER, t`as the browser has it`],
          ...LANGUAGE_IDS.map((language) => [language, LANGUAGES[language].own] as const),
        ]}
        onChoose={(language) => void choice.save(language === AS_BROWSER ? null : language)}
      />
      <p>{t`What children see and hear can be in another language: choose it with the class.`}</p>
      {choice.problem && <Notice problem={choice.problem} />}
    </section>
  );
}
