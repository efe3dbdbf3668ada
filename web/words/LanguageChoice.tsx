import { LANGUAGES, LANGUAGE_IDS, type Language } from '../../core/words/say.ts';

interface LanguageChoiceProps {
  readonly chosen: Language;
  readonly onChoose: (language: Language) => void;
}

/** Every language by its own name, as a line of buttons: whoever reads none of the others finds it. */
export function LanguageChoice({ chosen, onChoose }: LanguageChoiceProps) {
  return (
    <div className="language-choice" role="group" aria-label="Language · Sprache · Idioma">
      {LANGUAGE_IDS.map((language) => (
        <button
          key={language}
          type="button"
          lang={language}
          className="btn btn-link"
          aria-pressed={language === chosen}
          onClick={() => onChoose(language)}
        >
          {LANGUAGES[language].own}
        </button>
      ))}
    </div>
  );
}
