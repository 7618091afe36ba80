// Questions as JSON on standard input, answers as JSON on standard output: one browser for one test. See chromium.ts.
import { answerQuestions, launch } from './answerQuestions.mjs';

let input = '';
for await (const part of process.stdin) input += part;
const browser = await launch();
const answers = await answerQuestions(browser, JSON.parse(input));
await browser.close();
process.stdout.write(JSON.stringify(answers));
