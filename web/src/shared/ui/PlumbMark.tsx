/** The plumb bob of the wordmark. */
export function PlumbMark({ size = 22 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 22 22" aria-hidden="true">
      <path d="M11 0v12" stroke="currentColor" strokeWidth="1.5" />
      <path d="M6.500 12h9L11 21z" fill="var(--accent)" />
    </svg>
  );
}
