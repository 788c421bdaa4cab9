export { endpoint, pathOf, type Endpoint, type BodyOf, type ReplyOf } from './endpoint';
export { ERROR_CATALOGUE, type ErrorCode, type ApiErrorBody } from './errors';
export {
  readingSchema,
  newReadingSetSchema,
  readingSetSchema,
  lightnessSchema,
  aSchema,
  bSchema,
  READING_SOURCES,
  type ReadingSet,
} from './readings';
export {
  api,
  families,
  filmLimitSchema,
  stackLayerSchema,
  stacksSchema,
  choiceSchema,
  newJobSchema,
  jobSchema,
  jobSummarySchema,
  changeJobSchema,
  cardSchema,
  putCardSchema,
  storedCardSchema,
  jobDetailSchema,
  type Choice,
  type NewJob,
  type Job,
  type JobSummary,
  type JobDetail,
  type Card,
  type StoredCard,
} from './jobs';
export { calcSchemas, coatSchema, type CalcName, type SpectrumInput } from './calc';
export {
  materialsApi,
  ownMaterialSchema,
  ownGroundSchema,
  ownPigmentSchema,
  ownCarrierSchema,
  ownDyeSchema,
  ownSystemSchema,
  storedMaterialSchema,
  type StoredMaterial,
} from './materials';

export {
  knownHandSchema,
  labelPath,
  LABEL_SIZES,
  letdownApi,
  PHOTO_MAX_BYTES,
  PHOTO_TYPES,
  photoPath,
  photoSchema,
  verdictEventSchema,
  type LabelSize,
  type Photo,
  type VerdictEvent,
} from './letdown';
