export { SurveyStation } from './lazyStation.ts';
