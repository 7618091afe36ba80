import { questions } from './bench/questions.ts';
import { parsePage, pagesOf } from '@syndeton/core';
const measure = (run: () => void): number => { const b = process.cpuUsage(); run(); const u = process.cpuUsage(b); return (u.user + u.system) / 1000; };
const heap = () => { (globalThis as any).gc?.(); const { heapUsed, arrayBuffers } = process.memoryUsage(); return heapUsed + arrayBuffers; };
const n = Number(process.argv[2]);
const q = questions(n, measure, heap);
const parse = measure(() => { for (const p of pagesOf(q.site)) parsePage(p.text!); });
console.log({ n, reading: q.reading, parse, ratio: q.reading / parse, firsts: q.firsts.map(Math.round), answers: q.answers.map(Math.round), overrides: Math.round(q.overrides), kb: q.bytesPerPage / 1000 });
