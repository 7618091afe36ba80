// The package's own types are those of its other build, which Node does not load.
declare module 'bidi-js' {
  interface Characters {
    getBidiCharTypeName(char: string): string;
  }
  export default function makeBidi(): Characters;
}
