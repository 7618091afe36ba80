/** Where Debian's Chromium lies; CHROMIUM_PATH names another. Knows no package, so that it can be asked before npm ci. */
export const chromiumPath = process.env.CHROMIUM_PATH ?? '/usr/bin/chromium';
