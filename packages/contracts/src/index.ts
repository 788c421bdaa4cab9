export {
  endpoint,
  pathOf,
  BUILD_HEADER,
  HEALTH_PATH,
  SERVER_TIME_HEADER,
  type BodyOf,
  type Endpoint,
  type FileEndpoint,
  type ReplyOf,
} from './endpoint';
export { schemaBy } from './figures';
export { ERROR_CATALOGUE, type ApiErrorBody, type ErrorCode } from './errors';
export { isText, oddIn } from './json';
export { API_DOCS_PATH, APIS, jsonSchemaOf, openApi } from './openApi';
export {
  aSchema,
  bSchema,
  isOfJob,
  lightnessSchema,
  newReadingSetSchema,
  READING_SOURCES,
  readingSchema,
  readingsApi,
  readingSetSchema,
  type ReadingSet,
} from './readings';
export { filmLimitSchema, recipeSchema, stackLayerSchema, stacksSchema } from './layers';
export { bankApi, nearestQuerySchema, type Nearest } from './bank';
export {
  answersSchema,
  FINISH_FILE_MAX_BYTES,
  FINISH_FILES_AT_ONCE,
  finishFilePath,
  finishFilesApi,
  finishZipPath,
  lookedSchema,
  openedSchema,
  openFilePath,
  type AskedOfFile,
  type FileAnswers,
  type LookedIntoFile,
} from './finishFiles';
export {
  families,
  FINISH_SORTS,
  finishDetailSchema,
  finishesApi,
  finishQuerySchema,
  finishSchema,
  finishSummarySchema,
  PAGE_SIZE,
  passportPath,
  type CardOfFinish,
  type EarlierReading,
  type Finish,
  type FinishDetail,
  type FinishName,
  type FinishQuery,
  type FinishSummary,
  type FinishWas,
} from './finishes';
export { inboxApi, type Inbox, type OfferedFile } from './inbox';
export { tryOutApi, type CurtainSaid, type HeldAsk, type InstrumentSaid } from './tryOut';
export { areasOf, areasSchema, objectsSchema, type Area, type JobObjectRow } from './areas';
export { mixingSchema, START_MIXING, type Added, type Mixing } from './mixing';
export {
  cardSchema,
  cardsApi,
  knownHandSchema,
  LABEL_SIZES,
  labelPath,
  putCardSchema,
  storedCardSchema,
  type Card,
  type EarlierCard,
  type EarlierHand,
  type LabelSize,
  type StoredCard,
} from './cards';
export { verdictEventSchema, verdictsApi, type VerdictEvent } from './verdicts';
export { PHOTO_MAX_BYTES, PHOTO_TYPES, photoPath, photosApi, photoSchema, type Photo } from './photos';
export {
  changeJobSchema,
  JOB_SORTS,
  JOB_STATES,
  jobCountSchema,
  jobDetailSchema,
  jobQuerySchema,
  jobSchema,
  jobsApi,
  jobSheetPath,
  jobSummarySchema,
  newJobSchema,
  REMOVED_DAYS,
  type Job,
  type JobDetail,
  type ToldColours,
  type JobQuery,
  type JobSummary,
  type NewJob,
} from './jobs';
export { damagedApi, type Damaged } from './damaged';
export {
  CODE_LENGTH,
  copyPath,
  sessionApi,
  shopPlaceApi,
  type ShopCopy,
  type ShopDevice,
  type ShopPlace,
} from './door';
export {
  materialsApi,
  ownCarrierSchema,
  ownDyeSchema,
  ownGroundSchema,
  ownMaterialSchema,
  ownPigmentSchema,
  ownSystemSchema,
  storedMaterialSchema,
  type StoredMaterial,
  MOST_COLOURS,
} from './materials';
export { productSchema, productsApi, SHEET_MAX_BYTES, SHEET_TYPES, sheetPath, type StoredProduct } from './products';
export { gunSchema, gunsApi, type StoredGun } from './guns';
export {
  BATCH_SIZES,
  batchesApi,
  batchPdfPath,
  batchSchema,
  correctBatchSchema,
  storedBatchSchema,
  type Batch,
  type BatchCorrection,
  type CorrectBatch,
  type NewBatch,
} from './batches';
export {
  blendSettingsSchema,
  cellEditSchema,
  coatEditSchema,
  passSettingsSchema,
  sprayPlanSchema,
  START_PLAN,
  type BlendSettings,
  type PassSettings,
  type SprayPlan,
} from './plan';
export { isPlainEvent, jobEventSchema, logApi, type StoredEvent } from './log';
export { familyLimitsSchema, limitsApi, limitsSchema, type FamilyLimits } from './limits';
