/** How far a sitting has come: a tick a picture, hanging from one line. */
export function Progress({ count, done, at }: { count: number; done: number; at: number }) {
  return (
    <svg width={count * 16} height="16" aria-hidden="true" style={{ display: "block" }}>
      <path d={`M0 1H${count * 16}`} stroke="var(--hairline)" strokeWidth="2" />
      {Array.from({ length: count }, (_, place) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: a place is what it is
          key={place}
          d={`M${place * 16 + 8} 2V${place === at ? 15 : 9}`}
          stroke={place === at ? "var(--accent)" : place < done ? "var(--ink)" : "var(--hairline)"}
          strokeWidth={place === at ? 3 : 2}
        />
      ))}
    </svg>
  );
}
