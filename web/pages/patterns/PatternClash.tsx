import { BothVersions } from '../../ui/BothVersions.tsx';
import type { Draft } from './patternDraft.ts';

interface PatternClashProps {
  readonly theirs: Readonly<Record<string, unknown>>;
  readonly mine: Draft;
  readonly onMine: () => void;
  readonly onTheirs: () => void;
}

/** Somebody else changed the same pattern meanwhile: both are shown. Seldom, and so loaded only then. */
export default function PatternClash({ theirs, mine, onMine, onTheirs }: PatternClashProps) {
  return (
    <BothVersions
      clash={{ theirs: { ...theirs }, mine: { ...mine }, parts: ['title', 'text'] }}
      onMine={onMine}
      onTheirs={onTheirs}
    />
  );
}
