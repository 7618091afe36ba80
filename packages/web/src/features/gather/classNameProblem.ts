/** Why something cannot be the name of one class as people write them; undefined when it can. */
export const classNameProblem = (name: string): string | undefined =>
  /^[A-Za-z][\w-]*$/.test(name)
    ? undefined
    : 'Letters, digits, hyphens and underscores are allowed, a letter first; a space would part it into two classes.';
