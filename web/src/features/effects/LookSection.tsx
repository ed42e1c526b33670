import { WORDS } from './words';

/** What a look is for: its effects stand in the panel of pictures. */
export function LookSection() {
  return <p className="muted">{WORDS.howLooksWork}</p>;
}
