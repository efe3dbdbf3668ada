import type { Static, TSchema } from '@sinclair/typebox';
import type { Request } from 'express';
import { Id } from '../../contract/parts.ts';
import { validator } from '../../contract/validate.ts';
import { Problem, notFound } from '../problem.ts';

/** A reader for request bodies of one schema; anything else is answered with 422 and the field it is about. */
export function bodyOf<S extends TSchema>(schema: S): (request: Request) => Static<S> {
  const check = validator(schema);
  return (request) => {
    const checked = check(request.body);
    if (checked.ok) return checked.value;
    throw new Problem(422, 'bad-request', `${checked.message}.`, { field: checked.field });
  };
}

const isId = validator(Id);

/** An id from the path; what is no id at all is not found either. */
export function idOf(request: Request, name: string, what: string): string {
  const checked = isId(request.params[name]);
  if (!checked.ok) throw notFound(what);
  return checked.value;
}

/** A word after the question mark of an address; undefined where it is not there, or there twice. */
export function wordIn(request: Request, name: string): string | undefined {
  const value = request.query[name];
  return typeof value === 'string' && value.length <= 80 ? value : undefined;
}

/** The status of a thing that was put. */
export function statusOf(done: 'made' | 'changed'): 200 | 201 {
  return done === 'made' ? 201 : 200;
}
