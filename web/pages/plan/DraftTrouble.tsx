import type { Clash } from '../../api/client.ts';
import { BothVersions } from '../../domain/BothVersions.tsx';
import { Notice } from '../../ui/Notice.tsx';
import type { KeptDraft, KeptMoment } from '../../store/keptDraft.ts';

interface DraftTroubleProps<T extends object> {
  readonly draft: KeptMoment<T> & Pick<KeptDraft<T>, 'choose'>;
}

/** Why a draft is not stored: the server is away or refused it, or somebody else changed the same. */
export function DraftTrouble<T extends object>({ draft }: DraftTroubleProps<T>) {
  const { state, problem, value } = draft;
  const { clash } = (problem ?? {}) as { readonly clash?: Clash };
  if (state === 'clash' && clash) return <BothVersions clash={{ ...clash, mine: value }} onChosen={draft.choose} />;
  return state === 'on-device' && problem ? <Notice problem={problem} /> : null;
}
