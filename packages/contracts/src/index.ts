export { endpoint, pathOf, SERVER_TIME_HEADER, type Endpoint, type BodyOf, type ReplyOf } from './endpoint';
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
  areasOf,
  areasSchema,
  mixingSchema,
  objectsOf,
  objectsSchema,
  START_AREAS,
  START_MIXING,
  type Card,
  type Mixing,
  type Area,
  type JobObjectRow,
  type Done,
  type LayerFilm,
  REMOVED_DAYS,
  type RunState,
  type Damaged,
  type Added,
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

export {
  batchPdfPath,
  batchSchema,
  BATCH_SIZES,
  gunSchema,
  productSchema,
  SHEET_MAX_BYTES,
  SHEET_TYPES,
  sheetPath,
  shopApi,
  storedBatchSchema,
  type Batch,
  type NewBatch,
  type StoredGun,
  type StoredProduct,
} from './shop';

export {
  blendSettingsSchema,
  cellEditSchema,
  coatEditSchema,
  jobSheetPath,
  passSettingsSchema,
  sprayPlanSchema,
  START_PLAN,
  type BlendSettings,
  type PassSettings,
  type SprayPlan,
} from './spray';

export { jobEventSchema, logApi } from './log';

export { doneOf, filmOf, libraryOf, runOf, stacksOfPick, workOfCard, workOfJob, type JobWork } from './jobWork';

export { refuseInherited } from './json';
