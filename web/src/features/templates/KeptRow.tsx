import { Flex } from '@chakra-ui/react';
import type { Piece } from '@core/piece';
import { setView } from '../../store/desk-store';
import { Button } from '../../ui/Button';
import { forgetTemplate, openTemplateFile, templateFile } from './kept-templates';
import { tellFailure, useShowKept } from './use-kept-templates';
import { WORDS } from './words';

/** Keeps the template of a file. */
export function useOpenFile(): (file: File) => void {
  const show = useShowKept();
  return (file) =>
    void openTemplateFile(file).then((all) => {
      show(all);
      setView({ notice: WORDS.isOpened(all[0]?.name ?? file.name) });
    }, tellFailure);
}

/** What can be done with a template that a person keeps. */
export function KeptRow({ template, onGone }: { template: Piece; onGone: () => void }) {
  const show = useShowKept();
  return (
    <Flex gap="6px" wrap="wrap" alignItems="center">
      <span className="muted">{WORDS.own}</span>
      <Button variant="quiet" asChild aria-label={WORDS.saveFile(template.name)}>
        <a href={templateFile(template.id)} download>
          {WORDS.saveFile(template.name)}
        </a>
      </Button>
      <Button
        variant="quiet"
        onClick={() =>
          void forgetTemplate(template.id).then((all) => {
            onGone();
            show(all);
          }, tellFailure)
        }
      >
        {WORDS.forget(template.name)}
      </Button>
    </Flex>
  );
}
