/**
 * A keyframe: a four-pointed star. Filled when pinned to the music, hollow when free, with a flat bottom when it holds.
 */
const FULL =
  'M8.5 0.5C9.2 5.4 11.6 7.8 16.5 8.5C11.6 9.2 9.2 11.6 8.5 16.5C7.8 11.6 5.4 9.2 0.5 8.5C5.4 7.8 7.8 5.4 8.5 0.5Z';
const FLAT =
  'M8.5 0.5C9.2 5.4 11.6 7.8 16.5 8.5C13.5 9 11.5 10 10.4 11.6L10.4 13.6L6.6 13.6L6.6 11.6C5.5 10 3.5 9 0.5 8.5C5.4 7.8 7.8 5.4 8.5 0.5Z';

export function Star({ pinned, holds, size = 17 }: { pinned: boolean; holds: boolean; size?: number }) {
  return (
    <svg viewBox="0 0 17 17" width={size} height={size} aria-hidden="true">
      <path
        d={holds ? FLAT : FULL}
        fill={pinned ? 'var(--lamp)' : 'var(--ground)'}
        stroke={pinned ? 'var(--ground)' : 'var(--lamp)'}
        strokeWidth="1.2"
        strokeLinejoin="round"
      />
    </svg>
  );
}
