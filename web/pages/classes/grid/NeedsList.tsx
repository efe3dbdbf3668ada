import { perLanguage, t } from '../../../../core/words/say.ts';
import { Link } from 'react-router';
import type { ClassRecords } from '../../../../contract/records.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { type Need, type NeedKind, hardElements, needsOf } from '../../../../core/records/classStanding.ts';
import { ELEMENTS } from '../../../../core/rhythm/elements.ts';
import { namingOf } from '../../../../core/wording/voice.ts';
import { inNaming } from '../../../../core/wording/valueNames.ts';
import { mayHear } from '../../../domain/currentClass.ts';
import { knownChildren } from '../../../domain/knownChildren.ts';
import { useOfferedPatterns } from '../../../domain/offeredPatterns.ts';
import { practises } from './gridCells.ts';

const SHOWN = 4;
const WORDS = perLanguage((): Readonly<Record<NeedKind, string>> => ({
  shaky: t`unsure in`,
  due: t`not heard for three weeks in`,
  growing: t`not firm yet in`,
}));

/** Children grouped by what they need most, each with a way into the next lesson. */
export function NeedsList({ schoolClass, records }: { schoolClass: ClassDetail; records: ClassRecords }) {
  const needs = needsOf(knownChildren(records)).slice(0, SHOWN);
  if (needs.length === 0) return null;
  return (
    <section className="needs" aria-label={t`Next`}>
      <div className="needs-head">
        <h2>{t`Next`}</h2>
        <Link to={`/sheets?class=${schoolClass.id}&elements=${hardElements(needs).join(',')}`}>
          {t`A sheet of what they find hard`}
        </Link>
      </div>
      <ul>
        {needs.map((need) => (
          <li key={`${need.kind} ${need.element}`}>
            <NeedLine need={need} schoolClass={schoolClass} />
          </li>
        ))}
      </ul>
    </section>
  );
}

function NeedLine({ need: { kind, element, children }, schoolClass }: { need: Need; schoolClass: ClassDetail }) {
  const hears = mayHear(schoolClass);
  const names = children.map((id) => schoolClass.children.find((child) => child.id === id)?.name ?? '');
  const pattern = useOfferedPatterns().data?.find(({ text }) => practises(text, element));
  const title = inNaming(ELEMENTS()[element].title, namingOf(schoolClass));
  return (
    <>
      <span title={names.join(', ')}>
        <strong>{children.length === 1 ? names[0] : t`${children.length} children`}</strong> {WORDS()[kind]}{' '}
        <Link to={`/classes/${schoolClass.id}/elements/${element}`}>{title}</Link>
      </span>
      {pattern && (
        <Link className="btn btn-sm btn-outline-dark" to={`/lead?pattern=${pattern.id}`} title={pattern.title}>
          {t`Lead it`}
        </Link>
      )}
      {hears && (
        <Link
          className="btn btn-sm btn-outline-dark"
          to={`/classes/${schoolClass.id}/practice?element=${element}&children=${children.join(',')}`}
        >
          {t`Practice week`}
        </Link>
      )}
      {hears && (
        <Link
          className="btn btn-sm btn-outline-dark"
          to={`/take/line-up?class=${schoolClass.id}&element=${element}&children=${children.join(',')}`}
        >
          {t`Hear ${children.length === 1 ? t`this child` : t`just these`}`}
        </Link>
      )}
    </>
  );
}
