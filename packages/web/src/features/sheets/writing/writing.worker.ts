import { answerTo, type Question } from './answers.ts';
import type { Reply } from './WritingHelp.ts';

const say = (reply: Reply): void => postMessage(reply);

addEventListener(
  'message',
  ({ data: { id, question } }: MessageEvent<{ readonly id: number; readonly question: Question }>) => {
    try {
      say({ id, answer: answerTo(question) });
    } catch (error) {
      say({ id, problem: String(error) });
    }
  },
);
