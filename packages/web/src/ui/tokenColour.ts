/** A colour token as the theme has it, for what draws without CSS; nothing where there are no styles. */
export function tokenColour(name: string): string {
  const probe = document.createElement('i');
  probe.style.color = `var(--${name})`;
  document.documentElement.append(probe);
  const { color } = getComputedStyle(probe);
  probe.remove();
  return color;
}
