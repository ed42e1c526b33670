import { Input, Popover, Portal } from '@chakra-ui/react';
import { useState } from 'react';
import type { ReactNode } from 'react';
import { parseTypedTime } from '@core/time';
import type { Seconds } from '@core/time';
import { usePiece, useTimes } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

/**
 * A time that is shown, and typed once it is pressed. `Enter` takes it, `Escape` leaves it as it was; what is no time stays
 * in the field and is marked.
 */
export function TimeEntry({
  label,
  hint,
  written,
  now,
  onTime,
  children,
  more,
}: {
  label: string;
  hint: string;
  /** What stands in the field at first. */
  written: () => string;
  /** What + and − begin from. */
  now: () => Seconds;
  onTime: (seconds: Seconds) => void;
  children: ReactNode;
  /** Above the field while it is open; closes it when something of it was done. */
  more?: (close: () => void) => ReactNode;
}) {
  const { frameRate } = usePiece();
  const { grid } = useTimes();
  const [text, setText] = useState<string | null>(null);
  const [isWrong, setWrong] = useState(false);
  const close = () => {
    setText(null);
    setWrong(false);
  };
  if (text === null)
    return (
      <Button
        variant="bare"
        className="time-entry mono muted"
        aria-label={label}
        title={hint}
        onClick={() => setText(written())}
      >
        {children}
      </Button>
    );
  const take = () => {
    const seconds = parseTypedTime(text, { now: now(), rate: frameRate, grid });
    if (seconds === null) return setWrong(true);
    onTime(seconds);
    close();
  };
  return (
    <Popover.Root open={more !== undefined} autoFocus={false} positioning={{ placement: 'top-start', gutter: 8 }}>
      <Popover.Anchor asChild>
        <Input
          aria-label={label}
          aria-invalid={isWrong}
          title={isWrong ? WORDS.noTime : hint}
          className="mono"
          width="112px"
          value={text}
          autoFocus
          maxLength={40}
          onFocus={(e) => e.target.select()}
          onChange={(e) => {
            setText(e.target.value);
            setWrong(false);
          }}
          onBlur={close}
          onKeyDown={(e) => {
            e.stopPropagation();
            if (e.key === 'Enter') take();
            else if (e.key === 'Escape') close();
          }}
        />
      </Popover.Anchor>
      <Portal>
        <Popover.Positioner>
          <Popover.Content width="auto" aria-label={label}>
            <Popover.Body padding="8px" display="flex" gap="6px">
              {more?.(close)}
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
