import type { StageProps } from './stage.tsx';
import { QuestionStage } from './QuestionStage.tsx';
import { TakeStage } from './TakeStage.tsx';
import { WriteStage } from './WriteStage.tsx';

/** What is on, by its kind. */
export function RoundStage(props: StageProps) {
  const { task } = props.round;
  if (task.kind === 'take') return <TakeStage {...props} task={task} />;
  if (task.kind === 'question') return <QuestionStage {...props} task={task} />;
  return <WriteStage {...props} task={task} />;
}
