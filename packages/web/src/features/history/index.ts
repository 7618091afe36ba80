export { HistoryBox } from './HistoryBox.tsx';
