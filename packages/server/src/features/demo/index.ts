export { type DemoReader, makeDemoReader } from './readDemo.ts';
