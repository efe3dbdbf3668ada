import { BothVersions } from '../../domain/BothVersions.tsx';
import type { Draft } from './patternDraft.ts';

interface PatternClashProps {
  readonly theirs: Readonly<Record<string, unknown>>;
  readonly mine: Draft;
  readonly onChosen: (theirsStays: ReadonlySet<string>) => void;
}

/** Somebody else changed the same pattern meanwhile: both are shown. Seldom, and so loaded only then. */
export default function PatternClash({ theirs, mine, onChosen }: PatternClashProps) {
  return (
    <BothVersions
      clash={{ theirs, mine, parts: (['title', 'text'] as const).filter((part) => theirs[part] !== mine[part]) }}
      onChosen={onChosen}
    />
  );
}
