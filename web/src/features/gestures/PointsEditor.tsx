import { Flex, Span } from '@chakra-ui/react';
import { ACTOR_PROPERTIES } from '@core/motion';
import type { ActorProperty, ActorTracks, Track } from '@core/motion';
import { freeMoment } from '@core/time';
import { NumberField } from '../../ui/NumberField';
import { WORDS } from './words';

/** The points of an opened gesture: progress in per cent, and the value there. */
export function PointsEditor({
  tracks,
  onChange,
}: {
  tracks: ActorTracks;
  onChange: (tracks: ActorTracks, gesture: string | null) => void;
}) {
  const put = (
    property: ActorProperty,
    i: number,
    change: Partial<Track['keyframes'][number]>,
    gesture: string | null,
  ) => {
    const track = tracks[property];
    if (track)
      onChange(
        {
          ...tracks,
          [property]: { ...track, keyframes: track.keyframes.map((k, n) => (n === i ? { ...k, ...change } : k)) },
        },
        gesture,
      );
  };
  return (
    <div role="group" aria-label={WORDS.pointsOfTheGesture}>
      {(Object.entries(tracks) as [ActorProperty, Track][]).map(([property, track]) => (
        // keys are validated by the schema
        <div key={property}>
          <Span className="muted" fontSize="12px">
            {ACTOR_PROPERTIES[property].label}
          </Span>
          {track.keyframes.map((key, i) => (
            <Flex key={key.id} gap="4px" marginBottom="2px">
              <NumberField
                label={WORDS.pointAt(ACTOR_PROPERTIES[property].label, i + 1)}
                value={(key.at.kind === 'free' ? key.at.seconds : 0) * 100}
                unit="%"
                min={0}
                max={100}
                width={56}
                onChange={(v, g) => put(property, i, { at: freeMoment(v / 100) }, g)}
              />
              {typeof key.value === 'number' ? (
                <NumberField
                  label={WORDS.point(ACTOR_PROPERTIES[property].label, i + 1)}
                  value={key.value}
                  step={0.02}
                  decimals={2}
                  width={62}
                  onChange={(v, g) => put(property, i, { value: v }, g)}
                />
              ) : (
                Array.isArray(key.value) &&
                [0, 1].map((axis) => {
                  const value = key.value as [number, number];
                  return (
                    <NumberField
                      key={axis}
                      label={WORDS.pointLabel(ACTOR_PROPERTIES[property].label, i + 1, axis ? 'y' : 'x')}
                      value={value[axis]!}
                      step={0.02}
                      decimals={2}
                      width={54}
                      onChange={(v, g) => put(property, i, { value: axis ? [value[0], v] : [v, value[1]] }, g)}
                    />
                  );
                })
              )}
            </Flex>
          ))}
        </div>
      ))}
    </div>
  );
}
