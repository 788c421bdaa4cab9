import { setLocale } from 'yup';

// What is said of what no field of a screen can send. Every figure and name a painter types has sentences of its own;
// these stand in for the rest, so that no answer speaks the library's jargon. Imported before any schema is made.
setLocale({
  mixed: {
    default: '${path} is not what belongs there.',
    required: '${path} is missing.',
    defined: '${path} is missing.',
    notNull: '${path} is missing.',
    oneOf: '${path} must be one of: ${values}.',
    notOneOf: '${path} must not be one of: ${values}.',
    notType: '${path} is not what belongs there.',
  },
  string: {
    length: '${path} must have just ${length} letters.',
    matches: '${path} is not what belongs there.',
    min: '${path} must have ${min} letters at least.',
    max: '${path} must have ${max} letters at most.',
    uuid: '${path} must be an id.',
    datetime: '${path} must be a date and time.',
    datetime_offset: '${path} must be a date and time in UTC.',
    datetime_precision: '${path} must be a date and time.',
  },
  number: {
    min: '${path} must be ${min} at least.',
    max: '${path} must be ${max} at most.',
    lessThan: '${path} must be below ${less}.',
    moreThan: '${path} must be above ${more}.',
    positive: '${path} must be above ${more}.',
    negative: '${path} must be below ${less}.',
    integer: '${path} must be a whole number.',
  },
  array: {
    length: '${path} must have just ${length}.',
    min: '${path} must have ${min} at least.',
    max: '${path} must have ${max} at most.',
  },
  boolean: { isValue: '${path} is not what belongs there.' },
  object: { noUnknown: '${path} holds what does not belong there: ${unknown}.' },
});
