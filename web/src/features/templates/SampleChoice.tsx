import { Flex } from '@chakra-ui/react';
import { SAMPLE_CONTENTS } from '@core/templates';
import type { SampleContent } from '@core/templates';
import { Choice } from '../../ui/Choice';
import { WORDS } from './words';

/** Words to try a template with. */
export function SampleChoice({ value, onChange }: { value: SampleContent; onChange: (value: SampleContent) => void }) {
  return (
    <Flex gap="6px" alignItems="center" margin="8px 0">
      <span className="muted">{WORDS.trySamples}</span>
      <Choice
        aria-label={WORDS.trySamples}
        value={value}
        onChange={(e) => onChange(e.target.value as SampleContent)} // options of the table
      >
        {Object.entries(SAMPLE_CONTENTS).map(([id, { label }]) => (
          <option key={id} value={id}>
            {label}
          </option>
        ))}
      </Choice>
    </Flex>
  );
}
