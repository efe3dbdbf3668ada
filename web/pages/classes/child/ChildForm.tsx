import { perLanguage, t } from '../../../../core/words/say.ts';
import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { Adaptations, Child } from '../../../../contract/child.ts';
import { ELEMENTS, ELEMENT_IDS, type ElementId } from '../../../../core/rhythm/elements.ts';
import { type NamingId, inNaming } from '../../../../core/wording/valueNames.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { SelectField } from '../../../ui/SelectField.tsx';

const WINDOWS = perLanguage(
  () =>
    [
      ['1', t`as for everybody`],
      ['1.25', t`a quarter wider`],
      ['1.5', t`half as wide again`],
      ['2', t`twice as wide`],
    ] as const,
);
const TEMPOS = perLanguage(
  () =>
    [
      ['1', t`as for everybody`],
      ['0.9', t`a little slower (90 %)`],
      ['0.75', t`slower (75 %)`],
      ['0.5', t`half the tempo`],
    ] as const,
);
const HANDS_OF = perLanguage(
  () =>
    [
      ['both', 'claps'],
      ['one-hand', t`claps with one hand`],
      ['tapping', t`taps instead`],
    ] as const,
);
const MORE_TRIES = perLanguage(
  () =>
    [
      ['0', t`as many as everybody`],
      ['1', t`one more`],
      ['2', t`two more`],
      ['3', t`three more`],
    ] as const,
);

interface ChildFormProps {
  readonly child: Child;
  readonly naming: NamingId;
  readonly problem: Error | undefined;
  readonly onSave: (values: Omit<Child, 'id'>) => Promise<void>;
  readonly onCancel: () => void;
}

/** What is only kept where it is not as for everybody. */
function tidy({ wider = 1, slower = 1, hands, noClick, moreTries = 0, exempt = [] }: Adaptations): Adaptations | null {
  const kept: Adaptations = {
    ...(wider > 1 ? { wider } : {}),
    ...(slower < 1 ? { slower } : {}),
    ...(hands ? { hands } : {}),
    ...(noClick ? { noClick } : {}),
    ...(moreTries > 0 ? { moreTries } : {}),
    ...(exempt.length > 0 ? { exempt } : {}),
  };
  return Object.keys(kept).length > 0 ? kept : null;
}

/** A child's name, and what is made easier for it: set once, then applied without a word. */
export function ChildForm({ child, naming, problem, onSave, onCancel }: ChildFormProps) {
  const [name, setName] = useState(child.name);
  const [eased, setEased] = useState<Adaptations>(child.adaptations ?? {});
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void onSave({ name: name.trim(), adaptations: tidy(eased) });
  };
  return (
    <Form className="card-paper class-form" onSubmit={submit}>
      <Form.Group controlId="child-name">
        <Form.Label>{t`First name or code`}</Form.Label>
        <Form.Control value={name} required maxLength={60} onChange={(event) => setName(event.target.value)} />
      </Form.Group>
      <Eased eased={eased} onEased={setEased} />
      <Exempt exempt={eased.exempt ?? []} naming={naming} onExempt={(exempt) => setEased({ ...eased, exempt })} />
      <div className="class-form-actions">
        <Button type="submit">{t`Save`}</Button>
        <Button variant="outline-dark" onClick={onCancel}>{t`Cancel`}</Button>
      </div>
      {problem && <Notice problem={problem} />}
    </Form>
  );
}

/** Windows, tempo, hands, tries and click. */
function Eased({ eased, onEased }: { eased: Adaptations; onEased: (eased: Adaptations) => void }) {
  const set = (change: Partial<Adaptations>) => onEased({ ...eased, ...change });
  return (
    <>
      <SelectField
        id="child-wider"
        label={t`On time within`}
        value={String(eased.wider ?? 1)}
        options={WINDOWS()}
        onChoose={(wider) => set({ wider: Number(wider) })}
      />
      <SelectField
        id="child-slower"
        label={t`Tempo`}
        value={String(eased.slower ?? 1)}
        options={TEMPOS()}
        onChoose={(slower) => set({ slower: Number(slower) })}
      />
      <SelectField
        id="child-hands"
        label={t`Hands`}
        value={eased.hands ?? 'both'}
        options={HANDS_OF()}
        onChoose={(hands) => {
          const { hands: _before, ...others } = eased;
          onEased(hands === 'both' ? others : { ...others, hands });
        }}
      />
      <SelectField
        id="child-tries"
        label={t`Tries in a line-up`}
        value={String(eased.moreTries ?? 0)}
        options={MORE_TRIES()}
        onChoose={(more) => set({ moreTries: Number(more) })}
      />
      <Form.Check
        type="switch"
        id="child-no-click"
        label={t`Without the click after the count-in`}
        checked={eased.noClick === true}
        onChange={(event) => set({ noClick: event.target.checked })}
      />
    </>
  );
}

interface ExemptProps {
  readonly exempt: readonly ElementId[];
  readonly naming: NamingId;
  readonly onExempt: (exempt: ElementId[]) => void;
}

function Exempt({ exempt, naming, onExempt }: ExemptProps) {
  return (
    <fieldset className="exempt">
      <legend>{t`Not heard in`}</legend>
      {ELEMENT_IDS.map((id) => (
        <Form.Check
          key={id}
          type="checkbox"
          id={`exempt-${id}`}
          label={inNaming(ELEMENTS()[id].title, naming)}
          checked={exempt.includes(id)}
          onChange={({ target: { checked } }) =>
            onExempt(checked ? [...exempt, id] : exempt.filter((other) => other !== id))
          }
        />
      ))}
    </fieldset>
  );
}
