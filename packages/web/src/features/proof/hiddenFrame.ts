/** A page that does not come within this time is told of. */
const patience = 20_000;

/** A frame nobody sees, in which nothing runs. */
export function hiddenFrame(title: string): HTMLIFrameElement {
  const frame = document.createElement('iframe');
  frame.setAttribute('sandbox', 'allow-same-origin');
  frame.setAttribute('aria-hidden', 'true');
  frame.tabIndex = -1;
  frame.title = title;
  Object.assign(frame.style, {
    position: 'fixed',
    left: '-30000px',
    top: '0',
    width: '1280px',
    height: '900px',
    border: '0',
  });
  document.body.append(frame);
  return frame;
}

/** Settles when the page and its fonts are there. */
export function loaded(frame: HTMLIFrameElement, src: string): Promise<void> {
  return new Promise((resolve, reject) => {
    const late = setTimeout(() => reject(new Error('The page did not come within 20 seconds.')), patience);
    frame.onload = () => {
      clearTimeout(late);
      const { contentDocument } = frame;
      if (!contentDocument?.documentElement) reject(new Error('The page cannot be read here.'));
      else void contentDocument.fonts.ready.then(() => resolve());
    };
    frame.src = src;
  });
}

/** Everything that moves held at its beginning. */
export function holdAnimations(document: Document): void {
  for (const animation of document.getAnimations()) {
    animation.pause();
    animation.currentTime = 0;
  }
}
