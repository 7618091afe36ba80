/** One tick per page in rail order: low where the common version stands, tall where another does, a dot where none. Over 120 pages: binned. */
export function CopiesStrip({
  pages,
  versions,
}: {
  readonly pages: readonly string[];
  readonly versions: readonly { readonly pages: readonly string[] }[];
}) {
  const where = new Map<string, number>();
  versions.forEach((version, i) => version.pages.forEach((page) => where.set(page, Math.max(where.get(page) ?? 0, i))));
  const bins = Math.min(pages.length, 120);
  const size = pages.length / Math.max(bins, 1);
  const step = bins > 40 ? 1.6 : 4;
  const ticks = Array.from({ length: bins }, (_, bin) => {
    const inside = pages.slice(
      Math.floor(bin * size),
      Math.max(Math.floor(bin * size) + 1, Math.floor((bin + 1) * size)),
    );
    const found = inside.map((page) => where.get(page)).filter((v) => v !== undefined);
    return found.length === 0 ? -1 : Math.max(...found);
  });
  const held = where.size;
  const width = Math.max(3, step - 1);
  return (
    <svg
      className="ticks"
      width={bins * step}
      height="12"
      role="img"
      aria-label={`on ${held} of ${pages.length} pages, ${versions.length === 1 ? 'identical' : `${versions.length} versions`}`}
    >
      {ticks.map((version, i) => {
        if (version < 0)
          return <rect key={i} className="t-common" x={i * step + width / 2 - 0.5} y="10" width="1" height="1" />;
        return version === 0 ? (
          <rect key={i} className="t-common" x={i * step} y="5" width={Math.min(width, 3)} height="6" />
        ) : (
          <rect key={i} className="t-other" x={i * step} y="1" width={Math.min(width, 3)} height="10" />
        );
      })}
    </svg>
  );
}
