import type { ErrorObject } from 'ajv';

/** Something that is wrong with a file: at which of its fields, in a sentence. */
export interface FileFault {
  readonly field: string;
  readonly message: string;
}

/** A field's path as people write it: cards[0].rungs[1].takenAt. */
const pathSaid = (pointer: string): string =>
  pointer
    .split('/')
    .slice(1)
    .reduce((said, part) => (/^\d+$/.test(part) ? `${said}[${part}]` : said ? `${said}.${part}` : part), '');
const KINDS: Readonly<Record<string, string>> = {
  string: 'a text',
  number: 'a number',
  array: 'a list',
  object: 'a group of fields',
  null: 'empty (null)',
  boolean: 'true or false',
};
export function sayFault({ keyword, params, instancePath }: ErrorObject): FileFault {
  const field = pathSaid(instancePath);
  const p = params as Record<string, unknown>;
  const at = (name: unknown) => (field ? `${field}.${String(name)}` : String(name));
  switch (keyword) {
    case 'required':
      return { field: at(p['missingProperty']), message: 'This field is missing.' };
    case 'additionalProperties':
      return {
        field: at(p['additionalProperty']),
        message: 'This field is not known; it was expected to be left out.',
      };
    case 'type':
      return { field, message: `This must be ${KINDS[String(p['type'])] ?? 'something else'}.` };
    case 'enum':
      return { field, message: `This must be one of ${(p['allowedValues'] as unknown[]).join(', ')}.` };
    case 'minimum':
      return { field, message: `This can’t be below ${String(p['limit'])}.` };
    case 'maximum':
      return { field, message: `This can’t be above ${String(p['limit'])}.` };
    case 'maxLength':
      return { field, message: `This is longer than ${String(p['limit'])} letters.` };
    case 'maxItems':
      return { field, message: `Not more than ${String(p['limit'])} fit in here.` };
    case 'format':
      return {
        field,
        message:
          p['format'] === 'uuid' ? 'This must be an id (a UUID).' : 'This must be a moment (2026-11-20T09:00:00Z).',
      };
    default:
      return { field, message: 'This is not what a file of a finish has here.' };
  }
}

/** Faults of a field that may be empty are told of what it would have to be where it is not. */
export function tellable(errors: readonly ErrorObject[]): readonly ErrorObject[] {
  const told = errors.filter((e) => e.keyword !== 'anyOf' && !(e.keyword === 'type' && e.params['type'] === 'null'));
  return told.length ? told : errors;
}
