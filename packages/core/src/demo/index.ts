export { demoReadings, type DemoTruth } from './demoReadings';
