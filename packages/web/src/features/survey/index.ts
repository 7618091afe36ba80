export { SurveyStation } from './SurveyStationLazy.tsx';
