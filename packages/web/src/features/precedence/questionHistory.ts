import type { Question } from './QuestionView.tsx';

const most = 8;
const keyOf = (siteId: string): string => `syndeton-questions-${siteId}`;

/** The questions asked of a site in this browser, newest first. */
export function readQuestions(siteId: string): readonly Question[] {
  try {
    const read: unknown = JSON.parse(localStorage.getItem(keyOf(siteId)) ?? '[]');
    return Array.isArray(read) ? read.filter(isQuestion) : [];
  } catch {
    return [];
  }
}

export function keepQuestion(siteId: string, question: Question): void {
  const rest = readQuestions(siteId).filter(
    (one) => one.selector !== question.selector || one.property !== question.property,
  );
  localStorage.setItem(keyOf(siteId), JSON.stringify([question, ...rest].slice(0, most)));
}

const isQuestion = (one: unknown): one is Question =>
  typeof one === 'object' &&
  one !== null &&
  'selector' in one &&
  'property' in one &&
  typeof one.selector === 'string' &&
  typeof one.property === 'string';
