import { Box, Flex } from '@chakra-ui/react';
import type { LayerOf, Mask } from '@core/piece';
import { newId } from '../../platform/ids';
import { edit, setView, useDesk } from '../../store/desk-store';
import { Button } from '../../ui/Button';
import { setValue } from '../desk/commands';
import { WORDS } from './words';

const MOST_FORMS = 16;
type Forms = Mask['forms'];

/** What else an outline can be: a value leads from one to the next, by keyframes or by the music. */
export function FormsList({
  d,
  forms,
  shaped,
  disabled,
  onPut,
  onShape,
}: {
  d: string;
  forms: Forms;
  /** The form whose points are shown. */
  shaped: string | null;
  disabled: boolean;
  onPut: (forms: Forms) => boolean;
  /** @param number - what the value is where it is seen. */
  onShape: (formId: string, number: number) => void;
}) {
  return (
    <>
      <Flex alignItems="center" gap="6px">
        <Box as="strong" flex="1" fontWeight="600">
          {WORDS.forms}
        </Box>
        <Button
          variant="soft"
          disabled={disabled || forms.length >= MOST_FORMS}
          onClick={() => {
            const form = { id: newId(), name: WORDS.form(forms.length + 1), d: forms.at(-1)?.d ?? d };
            if (onPut([...forms, form])) onShape(form.id, forms.length + 1);
          }}
        >
          {WORDS.addForm}
        </Button>
      </Flex>
      {forms.length === 0 && <p className="muted">{WORDS.howFormsWork}</p>}
      {forms.map((form, i) => (
        <Flex key={form.id} alignItems="center" gap="4px">
          <Button
            variant="quiet"
            flex="1"
            justifyContent="flex-start"
            aria-pressed={shaped === form.id}
            disabled={disabled}
            onClick={() => onShape(form.id, i + 1)}
          >
            {form.name}
          </Button>
          <Button
            variant="quiet"
            padding="0 4px"
            aria-label={WORDS.removeForm(form.name)}
            disabled={disabled}
            onClick={() => onPut(forms.filter((other) => other.id !== form.id))}
          >
            ×
          </Button>
        </Flex>
      ))}
    </>
  );
}

/** The forms of a drawn shape. */
export function FormsSection({ layer }: { layer: LayerOf<'path'> }) {
  const { forms, d } = layer.content;
  const shaped = useDesk((s) => (s.shaping?.layerId === layer.id ? (s.shaping.formId ?? null) : null));
  return (
    <FormsList
      d={d}
      forms={forms}
      shaped={shaped}
      disabled={layer.locked}
      onPut={(next) => edit([{ type: 'layer.setContent', id: layer.id, content: { forms: next } }])}
      onShape={(formId, number) => {
        // What is bent is what is seen.
        setValue(layer, 'form', number, null);
        setView({ shaping: { layerId: layer.id, maskId: null, formId } });
      }}
    />
  );
}
