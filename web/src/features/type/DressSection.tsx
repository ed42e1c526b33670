import { Flex, Span } from '@chakra-ui/react';
import { BAND_KINDS, BREAKS, LETTER_CASES, RULE_KINDS, areaForSense } from '@core/piece';
import type { Dress, TextLayer } from '@core/piece';
import { edit } from '../../store/desk-store';
import { ColourField } from '../../ui/ColourField';
import { NumberField } from '../../ui/NumberField';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { Tick } from '../../ui/Tick';
import { WORDS } from './words';

/** What each piece of dress is when it is put on. */
const FRESH = {
  band: { per: 'line', colour: '#11151BCC', padX: 0.2, padY: 0.18, radius: 0.08 },
  shadow: { colour: '#000000A0', x: 0.03, y: 0.05, blur: 0.06 },
  glow: { colour: '#FFB74A90', radius: 0.12 },
  rule: { kind: 'under', colour: '#FFB74A', thickness: 0.07 },
  long: { colour: '#11151B', angle: 45, length: 0.6 },
  solid: { colour: '#B8432E', far: '#5E1E17', angle: 60, depth: 0.15 },
} as const satisfies { [P in Exclude<keyof Dress, 'outlines'>]: NonNullable<Dress[P]> };
const LABELS = {
  band: WORDS.band,
  shadow: WORDS.dropShadow,
  glow: WORDS.glow,
  rule: WORDS.rule,
  long: WORDS.longShadow,
  solid: WORDS.solid,
} as const satisfies Record<keyof typeof FRESH, string>;
/** Whole frame but the safe margins. */
const WHOLE = areaForSense({ x: 0.08, y: 0.1, width: 0.84, height: 0.8, valign: 'middle' });
/** The run of words that are set in one size from here. */
const ONE_SIZE = 'one-size';

function Share({
  label,
  value,
  onChange,
  max = 100,
}: {
  label: string;
  value: number;
  onChange: (v: number, gesture: string | null) => void;
  max?: number;
}) {
  return (
    <div className="prop">
      <span />
      <span className="name muted">{label}</span>
      <NumberField
        label={label}
        value={value * 100}
        unit="%"
        min={-max}
        max={max}
        onChange={(v, g) => onChange(v / 100, g)}
      />
    </div>
  );
}

/** The dress of a text: what lies behind, under and around its letters; its case; and the place it fills. */
export function DressSection({ layer }: { layer: TextLayer }) {
  const { content } = layer;
  const { dress, area } = content;
  const set = (change: Record<string, unknown>, gesture: string | null = null) =>
    edit([{ type: 'layer.setContent', id: layer.id, content: change }], gesture);
  const wear = (change: Partial<Dress>, gesture: string | null = null) =>
    set({ dress: { ...dress, ...change } }, gesture);
  const { band, shadow, glow, rule, long, solid, outlines } = dress;
  return (
    <section aria-label={WORDS.dress}>
      <div className="prop">
        <span />
        <span className="name">{WORDS.case}</span>
        <Choice
          aria-label={WORDS.case}
          value={content.letterCase}
          onChange={(e) => set({ letterCase: e.target.value })}
        >
          {Object.entries(LETTER_CASES).map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </Choice>
      </div>
      <div className="prop">
        <span />
        <span className="name">{WORDS.fillsAPlaceIn}</span>
        <Tick
          label={WORDS.fillsAPlaceIn}
          checked={area !== null}
          onChange={(isOn) => set({ area: isOn ? WHOLE : null })}
        />
      </div>
      {area && (
        <>
          {(['x', 'y', 'width', 'height'] as const).map((side) => (
            <Share
              key={side}
              label={
                { x: WORDS.placeFromLeft, y: WORDS.placeFromTop, width: WORDS.placeWidth, height: WORDS.placeHeight }[
                  side
                ]
              }
              max={200}
              value={area[side]}
              onChange={(v, g) =>
                (side === 'x' || side === 'y' || v > 0.01) && set({ area: { ...area, [side]: v } }, g)
              }
            />
          ))}
          <div className="prop">
            <span />
            <span className="name muted">{WORDS.stands}</span>
            <Choice
              aria-label={WORDS.standsInItsPlace}
              value={area.valign}
              onChange={(e) => set({ area: { ...area, valign: e.target.value } })}
            >
              <option value="top">{WORDS.atTheTop}</option>
              <option value="middle">{WORDS.inTheMiddle}</option>
              <option value="bottom">{WORDS.atTheBottom}</option>
            </Choice>
          </div>
          <div className="prop">
            <span />
            <span className="name muted">{WORDS.linesEnd}</span>
            <Choice
              aria-label={WORDS.linesEnd}
              value={area.breaks}
              onChange={(e) => set({ area: { ...area, breaks: e.target.value } })}
            >
              {Object.entries(BREAKS).map(([id, label]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </Choice>
          </div>
          <div className="prop">
            <span />
            <span className="name muted">{WORDS.oneSizeWithIts}</span>
            <Tick
              label={WORDS.oneSizeWithIts}
              checked={area.run !== null}
              onChange={(isOn) => set({ area: { ...area, run: isOn ? ONE_SIZE : null } })}
            />
          </div>
        </>
      )}
      <Flex flexWrap="wrap" gap="4px" margin="8px 0" role="group" aria-label={WORDS.worn}>
        {(Object.keys(FRESH) as (keyof typeof FRESH)[]).map((part) => (
          <Button
            key={part}
            variant="soft"
            padding="3px 8px"
            fontSize="12.5px"
            aria-pressed={dress[part] !== null}
            onClick={() => wear({ [part]: dress[part] ? null : FRESH[part] })}
          >
            {LABELS[part]}
          </Button>
        ))}
        <Button
          variant="soft"
          padding="3px 8px"
          fontSize="12.5px"
          aria-pressed={outlines.length > 0}
          onClick={() =>
            wear({
              outlines:
                outlines.length >= 3
                  ? []
                  : [...outlines, { colour: outlines.length % 2 ? '#EEE9DF' : '#FF6F59', width: 0.05 }],
            })
          }
        >
          {WORDS.outline}
          {outlines.length > 0 ? ` ${outlines.length}` : ''}
        </Button>
      </Flex>
      {band && (
        <>
          <div className="prop">
            <span />
            <span className="name">{WORDS.bandBehind}</span>
            <Span display="flex" gap="4px">
              <Choice
                aria-label={WORDS.bandBehind}
                value={band.per}
                onChange={(e) => wear({ band: { ...band, per: e.target.value as typeof band.per } })}
              >
                {Object.entries(BAND_KINDS).map(([id, label]) => (
                  <option key={id} value={id}>
                    {label}
                  </option>
                ))}
              </Choice>
              <ColourField
                compact
                label={WORDS.bandColour}
                value={band.colour}
                onChange={(colour, g) => wear({ band: { ...band, colour } }, g)}
              />
            </Span>
          </div>
          <Share
            label={WORDS.roomAtTheSides}
            max={400}
            value={band.padX}
            onChange={(padX, g) => wear({ band: { ...band, padX } }, g)}
          />
          <Share
            label={WORDS.roomAboveAndBelow}
            max={400}
            value={band.padY}
            onChange={(padY, g) => wear({ band: { ...band, padY } }, g)}
          />
          <Share
            label={WORDS.bandCorners}
            max={400}
            value={band.radius}
            onChange={(radius, g) => wear({ band: { ...band, radius: Math.max(0, radius) } }, g)}
          />
        </>
      )}
      {rule && (
        <>
          <div className="prop">
            <span />
            <span className="name">{WORDS.rule}</span>
            <Span display="flex" gap="4px">
              <Choice
                aria-label={WORDS.kindOfRule}
                value={rule.kind}
                onChange={(e) =>
                  wear({
                    rule: {
                      ...rule,
                      kind: e.target.value as typeof rule.kind,
                      thickness: e.target.value === 'marker' ? 0.45 : 0.07,
                    },
                  })
                }
              >
                {Object.entries(RULE_KINDS).map(([id, label]) => (
                  <option key={id} value={id}>
                    {label}
                  </option>
                ))}
              </Choice>
              <ColourField
                compact
                label={WORDS.ruleColour}
                value={rule.colour}
                onChange={(colour, g) => wear({ rule: { ...rule, colour } }, g)}
              />
            </Span>
          </div>
          <Share
            label={WORDS.ruleThickness}
            max={200}
            value={rule.thickness}
            onChange={(v, g) => wear({ rule: { ...rule, thickness: Math.max(0, v) } }, g)}
          />
        </>
      )}
      {shadow && (
        <>
          <div className="prop">
            <span />
            <span className="name">{WORDS.shadow}</span>
            <ColourField
              compact
              label={WORDS.shadowColour}
              value={shadow.colour}
              onChange={(colour, g) => wear({ shadow: { ...shadow, colour } }, g)}
            />
          </div>
          <Share
            label={WORDS.shadowRight}
            max={400}
            value={shadow.x}
            onChange={(x, g) => wear({ shadow: { ...shadow, x } }, g)}
          />
          <Share
            label={WORDS.shadowDown}
            max={400}
            value={shadow.y}
            onChange={(y, g) => wear({ shadow: { ...shadow, y } }, g)}
          />
          <Share
            label={WORDS.shadowSoftness}
            max={400}
            value={shadow.blur}
            onChange={(blur, g) => wear({ shadow: { ...shadow, blur: Math.max(0, blur) } }, g)}
          />
        </>
      )}
      {glow && (
        <>
          <div className="prop">
            <span />
            <span className="name">{WORDS.glow}</span>
            <ColourField
              compact
              label={WORDS.glowColour}
              value={glow.colour}
              onChange={(colour, g) => wear({ glow: { ...glow, colour } }, g)}
            />
          </div>
          <Share
            label={WORDS.glowReach}
            max={400}
            value={glow.radius}
            onChange={(radius, g) => wear({ glow: { ...glow, radius: Math.max(0, radius) } }, g)}
          />
        </>
      )}
      {long && (
        <>
          <div className="prop">
            <span />
            <span className="name">{WORDS.longShadow}</span>
            <ColourField
              compact
              label={WORDS.longShadowColour}
              value={long.colour}
              onChange={(colour, g) => wear({ long: { ...long, colour } }, g)}
            />
          </div>
          <div className="prop">
            <span />
            <span className="name muted">{WORDS.fallsTowards}</span>
            <NumberField
              label={WORDS.fallsTowards}
              value={long.angle}
              unit="°"
              onChange={(angle, g) => wear({ long: { ...long, angle } }, g)}
            />
          </div>
          <Share
            label={WORDS.longShadowLength}
            max={1200}
            value={long.length}
            onChange={(length, g) => wear({ long: { ...long, length: Math.max(0, length) } }, g)}
          />
        </>
      )}
      {solid && (
        <>
          <div className="prop">
            <span />
            <span className="name">{WORDS.sidesNearAndFar}</span>
            <Span display="flex" gap="4px">
              <ColourField
                compact
                label={WORDS.nearSideColour}
                value={solid.colour}
                onChange={(colour, g) => wear({ solid: { ...solid, colour } }, g)}
              />
              <ColourField
                compact
                label={WORDS.farSideColour}
                value={solid.far}
                onChange={(far, g) => wear({ solid: { ...solid, far } }, g)}
              />
            </Span>
          </div>
          <div className="prop">
            <span />
            <span className="name muted">{WORDS.runTowards}</span>
            <NumberField
              label={WORDS.sidesRunTowards}
              value={solid.angle}
              unit="°"
              onChange={(angle, g) => wear({ solid: { ...solid, angle } }, g)}
            />
          </div>
          <Share
            label={WORDS.depth}
            max={400}
            value={solid.depth}
            onChange={(depth, g) => wear({ solid: { ...solid, depth: Math.max(0, depth) } }, g)}
          />
        </>
      )}
      {outlines.map((outline, i) => (
        <div key={i} className="prop">
          <span />
          <span className="name">{WORDS.outlineValue(i + 1)}</span>
          <Span display="flex" gap="4px">
            <NumberField
              label={WORDS.outlineWidth(i + 1)}
              value={outline.width * 100}
              unit="%"
              min={0}
              max={100}
              onChange={(v, g) =>
                wear({ outlines: outlines.map((o, n) => (n === i ? { ...o, width: v / 100 } : o)) }, g)
              }
            />
            <ColourField
              compact
              label={WORDS.outlineColour(i + 1)}
              value={outline.colour}
              onChange={(colour, g) => wear({ outlines: outlines.map((o, n) => (n === i ? { ...o, colour } : o)) }, g)}
            />
          </Span>
        </div>
      ))}
    </section>
  );
}
