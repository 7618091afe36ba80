import { answerTo, type Question } from './answers.ts';

addEventListener('message', ({ data }: MessageEvent<{ readonly id: number; readonly question: Question }>) => {
  postMessage({ id: data.id, answer: answerTo(data.question) });
});
