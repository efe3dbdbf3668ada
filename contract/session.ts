import { type Static, Type } from '@sinclair/typebox';
import { Id, LanguageOf, Name, orNull, strict } from './parts.ts';
import { OwnSchool, SchoolSign } from './school.ts';

const LONGEST_PASSWORD = 200;
export const SHORTEST_PASSWORD = 10;

/** What somebody typed; whether it is right is for the server to say. */
const TypedPassword = Type.String({ minLength: 1, maxLength: LONGEST_PASSWORD });

/** One that is chosen now. */
export const ChosenPassword = Type.String({ minLength: SHORTEST_PASSWORD, maxLength: LONGEST_PASSWORD });

/** Of whom: where an installation has several schools, names are those of one. */
const whose = { name: Type.String({ minLength: 1, maxLength: 60 }), school: Type.Optional(Id) };

export const SignIn = Type.Object({ ...whose, password: TypedPassword }, strict);

export type SignIn = Static<typeof SignIn>;

/** A new password with the code that the administrator gave out. */
export const ResetPassword = Type.Object({ ...whose, code: TypedPassword, password: ChosenPassword }, strict);

export type ResetPassword = Static<typeof ResetPassword>;

/** A new account, with the code of an invitation. */
export const AcceptInvitation = Type.Object({ name: Name, code: TypedPassword, password: ChosenPassword }, strict);

export type AcceptInvitation = Static<typeof AcceptInvitation>;

export const ChangePassword = Type.Object({ current: TypedPassword, password: ChosenPassword }, strict);

export type ChangePassword = Static<typeof ChangePassword>;

export const Teacher = Type.Object({
  id: Id,
  name: Type.String(),
  /** Where the teacher is, by name; never none. */
  schools: Type.Array(OwnSchool),
  /** The language of the pages; null is that of the browser. */
  language: Type.Optional(orNull(LanguageOf)),
});

export type Teacher = Static<typeof Teacher>;

/** What the page needs before it can draw anything: who is signed in, and whether this is the demo. */
export const SessionState = Type.Object({
  teacher: orNull(Teacher),
  demo: Type.Boolean(),
  /** To choose from at the door, where there are several. */
  schools: Type.Optional(Type.Array(SchoolSign)),
  /** The place that vouches for teachers, where there is one. */
  signOn: Type.Optional(Type.Object({ name: Type.String() })),
});

export type SessionState = Static<typeof SessionState>;

/** What comes back from the place that vouches for teachers: the query of the address there. */
export const SignOnAnswer = Type.Object({ query: Type.String({ minLength: 1, maxLength: 8_000 }) }, strict);

export type SignOnAnswer = Static<typeof SignOnAnswer>;

/** An account for whom that place vouched, with an invitation. */
export const SignOnAccount = Type.Object(
  { name: Name, code: TypedPassword, state: Type.String({ minLength: 1, maxLength: 200 }) },
  strict,
);

export type SignOnAccount = Static<typeof SignOnAccount>;

/** Where to send the browser. */
export const SignOnWay = Type.Object({ url: Type.String() });

export type SignOnWay = Static<typeof SignOnWay>;

/** What became of who came back and is not in: she said who she is, or is nobody here yet. */
export const SignOnDone = Type.Union([
  Type.Object({ kind: Type.Literal('linked') }),
  Type.Object({ kind: Type.Literal('new'), name: Type.String() }),
]);

export type SignOnDone = Static<typeof SignOnDone>;

/** The language in which a teacher wants the pages; null is as the browser has it. */
export const ChooseLanguage = Type.Object({ language: orNull(LanguageOf) }, strict);

export type ChooseLanguage = Static<typeof ChooseLanguage>;

/** How a teacher gets in, as shown to that teacher. */
export const Account = Type.Object({
  /** The browsers in which this teacher is signed in, newest first; `here` is the one that asks. */
  devices: Type.Array(
    Type.Object({ id: Type.String(), name: Type.String(), startedAt: Type.Integer(), here: Type.Boolean() }),
  ),
  passkeys: Type.Array(Type.Object({ id: Type.String(), name: Type.String(), createdAt: Type.Integer() })),
  /** The place that vouches for teachers, where there is one, and since when it does for this one. */
  signOn: Type.Optional(Type.Object({ name: Type.String(), since: orNull(Type.Integer()) })),
});

export type Account = Static<typeof Account>;

/** What the browser is to ask its keys for; `options` are its own, as JSON. */
export const PasskeyRequest = Type.Object({ challengeId: Id, options: Type.Object({}) });

export type PasskeyRequest = Static<typeof PasskeyRequest>;

const Base64Url = Type.String({ maxLength: 8_000, pattern: '^[A-Za-z0-9_-]*$' });

const answered = {
  id: Base64Url,
  rawId: Base64Url,
  type: Type.Literal('public-key'),
  authenticatorAttachment: Type.Optional(Type.String({ maxLength: 40 })),
  clientExtensionResults: Type.Object({}),
};

/** What a browser made of it, where a key is added. */
export const NewPasskey = Type.Object(
  {
    challengeId: Id,
    name: Name,
    answer: Type.Object({
      ...answered,
      response: Type.Object({
        clientDataJSON: Base64Url,
        attestationObject: Base64Url,
        transports: Type.Optional(Type.Array(Type.String({ maxLength: 20 }), { maxItems: 8 })),
      }),
    }),
  },
  strict,
);

export type NewPasskey = Static<typeof NewPasskey>;

/** The same where somebody signs in. */
export const PasskeySignIn = Type.Object(
  {
    challengeId: Id,
    answer: Type.Object({
      ...answered,
      response: Type.Object({
        clientDataJSON: Base64Url,
        authenticatorData: Base64Url,
        signature: Base64Url,
        userHandle: Type.Optional(Base64Url),
      }),
    }),
  },
  strict,
);

export type PasskeySignIn = Static<typeof PasskeySignIn>;
