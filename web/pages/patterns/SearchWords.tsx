import { t } from '../../../core/words/say.ts';
import { Search } from 'lucide-react';
import Form from 'react-bootstrap/Form';

/** The words that are looked for. */
export function SearchWords({ words, onWords }: { words: string; onWords: (words: string) => void }) {
  return (
    <div className="filter-words">
      <Search size={18} aria-hidden />
      <Form.Control
        type="search"
        aria-label={t`Look for`}
        placeholder={t`Title, folder or rhythm`}
        value={words}
        onChange={({ target }) => onWords(target.value)}
      />
    </div>
  );
}
