import { Printer } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import fitsSchool from 'virtual:fits/school';
import { inLanguage, perLanguage, t } from '../../../core/words/say.ts';
import type { School } from '../../../contract/school.ts';
import type { Teacher } from '../../../contract/session.ts';
import { useGet } from '../../api/useGet.ts';
import { useOwnSchool } from '../../domain/SchoolChoice.tsx';
import { Loading } from '../../ui/Loading.tsx';
import { useLanguages } from '../../words/language.ts';
import { KEPT, daysText } from './keptWords.ts';
import './school.scss';

/** What parents ask, with the answers of a school, for print. */
export default function AnswersPage({ teacher: { schools } }: { teacher: Teacher }) {
  const own = useOwnSchool(schools);
  const { data, error, mutate } = useGet<School>(`/schools/${own.id}`, fitsSchool);
  const language = data?.language ?? undefined;
  // What the school prints in may come later than the page.
  useLanguages();
  return (
    <>
      <div className="page-head no-print">
        <h1>{t`What parents ask`}</h1>
        <Link to={`/school?at=${own.id}`}>{own.name}</Link>
        <span className="flex-grow-1" />
        <Button onClick={() => print()}>
          <Printer size={16} aria-hidden /> {t`Print`}
        </Button>
      </div>
      {!data && <Loading problem={error} again={() => void mutate()} />}
      {data && (
        <article className="answers" lang={language}>
          <h2>{inLanguage(language, () => t`${data.name}: what is kept of children`)}</h2>
          {inLanguage(language, () => answersOf(data)).map(({ question, answer, list }) => (
            <section key={question}>
              <h3>{question}</h3>
              <p>{answer}</p>
              {list && (
                <ul>
                  {list.map((line) => (
                    <li key={line}>{line}</li>
                  ))}
                </ul>
              )}
            </section>
          ))}
        </article>
      )}
    </>
  );
}

interface Answer {
  readonly question: string;
  readonly answer: string;
  readonly list?: readonly string[];
}

/** In the language of the school, with its times. */
function answersOf({ retention }: School): Answer[] {
  const times = KEPT().map(({ kind, told, usual }) => {
    const days = retention[kind];
    return `${told}: ${days === null ? usual : daysText(days)}`;
  });
  return ANSWERS().map((one) => (one.list === undefined ? one : { ...one, list: times }));
}

const ANSWERS = perLanguage((): readonly Answer[] => [
  {
    question: t`What is kept of my child?`,
    answer: t`The first name, or a code in its place. When it clapped in a take, to the thousandth of a second, with
      the rhythm it clapped and the mark. What it can read already. Where the teacher has written one: a line for its
      report, and what is made easier for it. No surname, no date of birth, no picture, no address.`,
  },
  {
    question: t`Why?`,
    answer: t`So that the teacher can say what was right, what to practise next, and how it goes on over the year. It
      is used for nothing else: no advertising, no profiles, no comparison between children or schools.`,
  },
  {
    question: t`Is my child recorded?`,
    answer: t`Sound is listened to by the teacher’s computer and not kept. Only where a teacher has said so for a class,
      after asking, a recording is kept, and deleted by itself on its day.`,
  },
  {
    question: t`How long is it kept?`,
    answer: t`At this school:`,
    list: [],
  },
  {
    question: t`Who can see it?`,
    answer: t`Your child’s music teacher, and a colleague with whom the teacher shares the class. Whoever looks after
      the accounts of the school sees no class and no child. Nothing is given to anybody else.`,
  },
  {
    question: t`Where is it?`,
    answer: t`On the server of the school or of its town. The program sends nothing to any other place.`,
  },
  {
    question: t`What do children’s own devices keep?`,
    answer: t`Nothing, once the lesson is over. A slip for home leads to one week of practice: it shows no name and no
      mark, and ends with the week.`,
  },
  {
    question: t`Can I see it, or have it deleted?`,
    answer: t`Yes. Ask the teacher: everything that is kept of your child is saved in one file for you, or deleted at
      once. After that the program looks through all it has, and prints that nothing is left.`,
  },
]);
