/** Zendle's mark: the path of a search that turns back once, from the past to the future. */
export function Logo({ size = 30 }: { size?: number }) {
  return (
    <svg width={size} height={size * 0.8} viewBox="0 0 30 24" aria-hidden="true">
      <path
        d="M3 4h24L5 20h22"
        fill="none"
        stroke="#E3B95A"
        strokeWidth="2.4"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
      <circle cx="27" cy="4" r="2.6" fill="#BF5B34" />
      <circle cx="5" cy="20" r="2.6" fill="#8E9BDB" />
    </svg>
  );
}
