export { PersonMenu } from './PersonMenu.tsx';
export { SignedIn } from './SignedIn.tsx';
export { useMayOnlyLook } from './useMayOnlyLook.ts';
