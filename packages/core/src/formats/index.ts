export { parseProductsCsv, productsToCsv, type ProductCandidate, type ProductsCsvResult } from './productsCsv';
export { averageReadings, READING_LIMITS, spotLabsOf, spotsOf, type Reading, type AveragedAngle } from './readings';
export {
  angleInName,
  geometryIn,
  importReadings,
  toCgats,
  toColourXml,
  toReadingsCsv,
  type ImportHints,
  type ImportQuestion,
  type ImportResult,
} from './importReadings';
export { parseReadingsCsv, CSV_MAX_LENGTH, type CsvProblem, type CsvResult } from './readingsCsv';
export { mapToCsv } from './mapCsv';
export { decimalIn } from './decimal';
export { fileName } from './fileName';
export { wholeness, type Whole } from './whole';
