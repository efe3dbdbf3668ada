import { t } from '../../../core/words/say.ts';
import { useMemo } from 'react';
import { type LessonEdit, MOST_BLOCKS } from '../../../contract/lesson.ts';
import { BLOCK_KINDS, type BlockTime, unmetIn } from '../../../core/planning/lesson.ts';
import { BLOCK_WORDS } from '../../../core/wording/planWords.ts';
import { usePatterns } from '../../api/hooks.ts';
import { blockIn } from '../../lesson/blocks.ts';
import { Sorting } from '../../ui/Sorting.tsx';
import { BlockCard, sortId } from './BlockCard.tsx';
import { addBlock, changeBlock, moveBlock, removeBlock } from './lessonDraft.ts';
import type { Planning } from './usePlanning.ts';

const NONE: readonly never[] = [];

interface BlockListProps {
  readonly lesson: LessonEdit;
  readonly times: readonly BlockTime[];
  readonly planning: Planning;
  readonly onChange: (lesson: LessonEdit) => void;
}

/** The blocks of a lesson in their order: dragged, or moved by their arrows. */
export function BlockList({ lesson, times, planning, onChange }: BlockListProps) {
  const { blocks } = lesson;
  const { data: patterns } = usePatterns();
  const ids = blocks.map(sortId);
  const blockOf = (id: string) => blocks[ids.indexOf(id)]!;
  const unmet = useMemo(() => unmetIn(blocks.map(blockIn), planning.met.keys()), [blocks, planning.met]);
  return (
    <>
      <Sorting
        ids={ids}
        titleOf={(id) => BLOCK_WORDS()[blockOf(id).kind].title}
        onMoved={(id, to) => onChange(moveBlock(lesson, blockOf(id).key, ids.indexOf(to)))}
      >
        <ol className="block-list" aria-label={t`Blocks of the lesson`}>
          {blocks.map((block, at) => (
            <BlockCard
              key={block.key}
              block={block}
              at={at}
              count={blocks.length}
              time={times[at]!}
              unmet={unmet.filter((one) => one.block === at)}
              planning={planning}
              patterns={patterns ?? NONE}
              onChange={(change) => onChange(changeBlock(lesson, block.key, change))}
              onMove={(by) => onChange(moveBlock(lesson, block.key, at + by))}
              onRemove={() => onChange(removeBlock(lesson, block.key))}
            />
          ))}
        </ol>
      </Sorting>
      {blocks.length < MOST_BLOCKS && (
        <div className="block-add" role="group" aria-label={t`Add a block`}>
          <span>{t`Add`}</span>
          {BLOCK_KINDS.map((kind) => (
            <button
              key={kind}
              type="button"
              className="btn btn-sm btn-outline-dark"
              title={BLOCK_WORDS()[kind].about}
              onClick={() => onChange(addBlock(lesson, kind))}
            >
              {BLOCK_WORDS()[kind].title}
            </button>
          ))}
        </div>
      )}
    </>
  );
}
