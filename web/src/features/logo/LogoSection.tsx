import { Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { GroupLayer } from '@core/piece';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { FileButton } from '../../ui/FilePick';
import { drawPartsOn } from './draw-on';
import { replaceLogo } from './take-logo';
import { WORDS } from './words';

/** What can be done with the parts of a group: drawn on to the beat, or replaced by those of another file. */
export function LogoSection({ layer }: { layer: GroupLayer }) {
  const [step, setStep] = useState('0.5');
  return (
    <section aria-label={WORDS.logo}>
      <Button variant="soft" disabled={layer.locked} onClick={() => drawPartsOn(layer, Number(step))}>
        {WORDS.drawOn}
      </Button>
      <Flex gap="6px" alignItems="center" marginTop="4px">
        <span className="muted">{WORDS.oneEach}</span>
        <Choice aria-label={WORDS.pace} value={step} onChange={(e) => setStep(e.target.value)}>
          {Object.entries(WORDS.steps)
            .sort(([a], [b]) => Number(a) - Number(b))
            .map(([id, label]) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
        </Choice>
      </Flex>
      <FileButton
        label={WORDS.replaceFile(layer.name)}
        accept=".svg,image/svg+xml"
        onFiles={([file]) => file && void replaceLogo(layer, file)}
      >
        <Button variant="soft" marginTop="6px" disabled={layer.locked}>
          {WORDS.replace}
        </Button>
      </FileButton>
    </section>
  );
}
