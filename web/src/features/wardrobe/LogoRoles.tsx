import { Box, Flex } from '@chakra-ui/react';
import { MEDIA_KINDS } from '@core/piece';
import type { Wardrobe } from '@core/piece';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { RoleChoice, without } from './RoleChoice';
import { setWardrobe } from './wardrobe-commands';
import { WORDS } from './words';

/** The piece's logos, by role: pictures of the piece. */
export function LogoRoles({ wardrobe }: { wardrobe: Wardrobe }) {
  const { logos } = wardrobe;
  const pictures = usePiece().media.filter(({ kind }) => kind === 'picture');
  const [first] = pictures;
  return (
    <section aria-label={WORDS.logos}>
      <Box as="strong" fontWeight="600">
        {WORDS.logos}
      </Box>
      {Object.entries(logos).map(([role, mediaId]) => {
        const media = pictures.find(({ id }) => id === mediaId);
        return (
          <Flex key={role} className="list-row" alignItems="center" gap="6px">
            {media && (
              <img alt="" className="layer-icon" src={`/api/media/${media.hash}/${MEDIA_KINDS.picture.variant}`} />
            )}
            <Box flex="1" overflow="hidden" textOverflow="ellipsis">
              {role}
            </Box>
            <Choice
              aria-label={WORDS.logoOf(role)}
              value={mediaId}
              maxWidth="120px"
              onChange={(e) => setWardrobe({ logos: { ...logos, [role]: e.target.value } })}
            >
              {pictures.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </Choice>
            <Button
              variant="quiet"
              padding="0 4px"
              aria-label={WORDS.remove(role)}
              onClick={() => setWardrobe({ logos: without(logos, role) })}
            >
              ×
            </Button>
          </Flex>
        );
      })}
      {first ? (
        <RoleChoice
          label={WORDS.addALogo}
          offered={WORDS.logoRoles}
          taken={logos}
          onChoose={(role) => setWardrobe({ logos: { ...logos, [role]: logos[role] ?? first.id } })}
        />
      ) : (
        <p className="muted">{WORDS.noPictures}</p>
      )}
    </section>
  );
}
