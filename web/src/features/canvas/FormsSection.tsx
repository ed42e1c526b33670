import { Box, Flex } from '@chakra-ui/react';
import type { LayerOf } from '@core/piece';
import { newId } from '../../platform/ids';
import { edit, setView, useDesk } from '../../store/desk-store';
import { Button } from '../../ui/Button';
import { setValue } from '../desk/commands';
import { WORDS } from './words';

const MOST_FORMS = 16;

/** What else a drawn shape can be: the value “Form” leads from one to the next, by keyframes or by the music. */
export function FormsSection({ layer }: { layer: LayerOf<'path'> }) {
  const { forms, d } = layer.content;
  const shaped = useDesk((s) => (s.shaping?.layerId === layer.id ? (s.shaping.formId ?? null) : null));
  const put = (next: typeof forms) => edit([{ type: 'layer.setContent', id: layer.id, content: { forms: next } }]);
  const shape = (formId: string, number: number) => {
    // What is bent is what is seen.
    setValue(layer, 'form', number, null);
    setView({ shaping: { layerId: layer.id, maskId: null, formId } });
  };
  return (
    <>
      <Flex alignItems="center" gap="6px">
        <Box as="strong" flex="1" fontWeight="600">
          {WORDS.forms}
        </Box>
        <Button
          variant="soft"
          disabled={layer.locked || forms.length >= MOST_FORMS}
          onClick={() => {
            const form = { id: newId(), name: WORDS.form(forms.length + 1), d: forms.at(-1)?.d ?? d };
            if (put([...forms, form])) shape(form.id, forms.length + 1);
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
            disabled={layer.locked}
            onClick={() => shape(form.id, i + 1)}
          >
            {form.name}
          </Button>
          <Button
            variant="quiet"
            padding="0 4px"
            aria-label={WORDS.removeForm(form.name)}
            disabled={layer.locked}
            onClick={() => put(forms.filter((other) => other.id !== form.id))}
          >
            ×
          </Button>
        </Flex>
      ))}
    </>
  );
}
