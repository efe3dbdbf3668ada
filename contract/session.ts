import { type Static, Type } from '@sinclair/typebox';
import { Id, LanguageOf, Name, orNull, strict } from './parts.ts';

const LONGEST_PASSWORD = 200;
export const SHORTEST_PASSWORD = 10;

/** What somebody typed; whether it is right is for the server to say. */
const TypedPassword = Type.String({ minLength: 1, maxLength: LONGEST_PASSWORD });

/** One that is chosen now. */
export const ChosenPassword = Type.String({ minLength: SHORTEST_PASSWORD, maxLength: LONGEST_PASSWORD });

export const SignIn = Type.Object(
  { name: Type.String({ minLength: 1, maxLength: 60 }), password: TypedPassword },
  strict,
);

export type SignIn = Static<typeof SignIn>;

/** A new password with the code that the administrator gave out. */
export const ResetPassword = Type.Object(
  { name: Type.String({ minLength: 1, maxLength: 60 }), code: TypedPassword, password: ChosenPassword },
  strict,
);

export type ResetPassword = Static<typeof ResetPassword>;

export const ChangePassword = Type.Object({ current: TypedPassword, password: ChosenPassword }, strict);

export type ChangePassword = Static<typeof ChangePassword>;

export const Teacher = Type.Object({
  id: Id,
  name: Type.String(),
  administrator: Type.Boolean(),
  /** The language of the pages; null is that of the browser. */
  language: Type.Optional(orNull(LanguageOf)),
});

export type Teacher = Static<typeof Teacher>;

/** What the page needs before it can draw anything: who is signed in, and whether this is the demo. */
export const SessionState = Type.Object({ teacher: orNull(Teacher), demo: Type.Boolean() });

export type SessionState = Static<typeof SessionState>;

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
