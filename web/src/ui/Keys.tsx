import { Kbd } from '@chakra-ui/react';
import { keyParts } from './key-hints';

/** A key, or several pressed together. */
export const Keys = ({ of }: { of: string }) => (
  <span className="keys">
    {keyParts(of).map((part) => (
      <Kbd key={part}>{part}</Kbd>
    ))}
  </span>
);
