import { type Static, Type } from '@sinclair/typebox';
import { EXTRA_KINDS } from '../core/judging/extras.ts';
import { HOLD_VERDICTS } from '../core/judging/holds.ts';
import { MISREADING_CODES } from '../core/judging/misreadings/table.ts';
import { type TakeResult as Judged, STEPPED, VERDICTS } from '../core/judging/takeResult.ts';
import { oneOf, orNull } from './parts.ts';

export const Fraction = Type.Object({ n: Type.Integer(), d: Type.Integer({ minimum: 1 }) });

const place = {
  played: Type.Integer(),
  measure: Type.Integer(),
  timeThrough: Type.Optional(Type.Integer()),
  beat: Fraction,
};

const Misreading = Type.Object({
  code: oneOf(MISREADING_CODES),
  event: Type.Integer(),
  ...place,
  beats: Type.Optional(Fraction),
  percent: Type.Optional(Type.Number()),
  count: Type.Optional(Type.Integer()),
  ms: Type.Optional(Type.Integer()),
  as: Type.Optional(Type.String()),
  factor: Type.Optional(Fraction),
  again: Type.Optional(Type.Array(Type.Object(place))),
  kept: Type.Optional(Type.Object({ bpm: Type.Number(), click: Type.Number() })),
  part: Type.Optional(Type.Literal(true)),
  until: Type.Optional(Type.Object(place)),
  instead: Type.Optional(Type.Literal(true)),
});

const Shape = Type.Object({
  notes: Type.Array(
    Type.Object({
      index: Type.Integer(),
      ...place,
      verdict: oneOf(VERDICTS),
      errorMs: Type.Optional(Type.Number()),
      onset: Type.Optional(Type.Integer()),
    }),
  ),
  extras: Type.Array(
    Type.Object({ onset: Type.Integer(), seconds: Type.Number(), ...place, kind: oneOf(EXTRA_KINDS) }),
  ),
  misreadings: Type.Array(Misreading),
  offClick: Type.Optional(Type.Boolean()),
  withoutClick: Type.Optional(Type.Integer()),
  slips: Type.Integer(),
  tempo: Type.Object({ bpm: Type.Number(), driftPct: Type.Number(), spreadMs: Type.Number(), leadMs: Type.Number() }),
  follow: Type.Array(Type.Object({ fromNote: Type.Integer(), beatsAhead: Fraction })),
  withBeat: orNull(Type.Number()),
  heard: Type.String(),
  accuracy: Type.Number(),
  mark: Type.Integer(),
  feet: Type.Optional(
    Type.Object({
      onBeat: Type.Integer(),
      beats: Type.Integer(),
      extras: Type.Integer(),
      leadMs: Type.Number(),
      handsLaterMs: Type.Number(),
      apartMs: Type.Number(),
      stepped: oneOf(STEPPED),
      misreadings: Type.Array(Misreading),
    }),
  ),
  holds: Type.Optional(
    Type.Array(
      Type.Object({
        index: Type.Integer(),
        verdict: oneOf(HOLD_VERDICTS),
        heldS: Type.Number(),
        writtenS: Type.Number(),
      }),
    ),
  ),
});

/** As it is frozen: the contract's arrays and objects may be written to, those of core may not. */
type Frozen<T> = T extends object ? { readonly [K in keyof T]: Frozen<T[K]> } : T;
type Fits<A extends B, B> = A;
/**
 * The compiler's own check that schema and judging name the same facts, in both directions.
 * @public
 */
export type SchemaFitsJudging = Fits<Judged, Frozen<Static<typeof Shape>>> & Fits<Frozen<Static<typeof Shape>>, Judged>;

/** What judging gives; the server stores it beside the onsets it came from. */
export const TakeResult = Type.Unsafe<Judged>(Shape);
export type TakeResult = Judged;
