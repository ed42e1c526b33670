import { groupings } from '@core/time';
import { Choice } from '../../ui/Choice';
import { WORDS } from './words';

interface Props {
  readonly label: string;
  readonly beatsPerBar: number;
  /** Empty for none. */
  readonly groups: readonly number[];
  readonly onChange: (groups: number[]) => void;
}

const nameOf = (groups: readonly number[]): string => groups.join(' + ');

/** How the beats of a bar group; not there for bars that short that it goes without saying. */
export function GroupsChoice({ label, beatsPerBar, groups, onChange }: Props) {
  const ways = groupings(beatsPerBar);
  if (ways.length === 0) return null;
  const chosen = nameOf(groups);
  return (
    <div className="prop">
      <span />
      <span className="name">{label}</span>
      <Choice
        aria-label={label}
        value={ways.some((way) => nameOf(way) === chosen) ? chosen : ''}
        onChange={(event) => onChange(ways.find((way) => nameOf(way) === event.currentTarget.value) ?? [])}
      >
        <option value="">{WORDS.noGroups}</option>
        {ways.map((way) => (
          <option key={nameOf(way)}>{nameOf(way)}</option>
        ))}
      </Choice>
    </div>
  );
}
