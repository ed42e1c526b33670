import { Button } from '../../ui/Button';
import { WORDS } from './words';

/** Where a newcomer begins: the way into the guided first piece, on the home. */
export function FirstPieceCard({ onStart }: { onStart: () => void }) {
  return (
    <article className="first-piece" aria-label={WORDS.cardTitle}>
      <svg viewBox="0 0 240 60" aria-hidden="true">
        {Array.from({ length: 17 }, (_, beat) => (
          <line
            key={beat}
            x1={8 + beat * 14}
            x2={8 + beat * 14}
            y1={beat % 4 === 0 ? 12 : 28}
            y2={48}
            className={beat % 4 === 0 ? 'bar' : 'beat'}
          />
        ))}
        <path d="M8 48H232" className="ground" />
        <path d="M64 2C65 9 68 12 75 13C68 14 65 17 64 24C63 17 60 14 53 13C60 12 63 9 64 2Z" className="star" />
        <path
          d="M176 2C177 9 180 12 187 13C180 14 177 17 176 24C175 17 172 14 165 13C172 12 175 9 176 2Z"
          className="star"
        />
      </svg>
      <h2>{WORDS.cardTitle}</h2>
      <p className="muted">{WORDS.cardText}</p>
      <Button variant="soft" onClick={onStart}>
        {WORDS.start}
      </Button>
    </article>
  );
}
