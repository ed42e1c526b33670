import { useState } from 'react';
import { roleName } from '@core/piece';
import { Choice } from '../../ui/Choice';
import { NameField } from '../../ui/NameField';
import { WORDS } from './words';

/** Roles without one of them. */
export function without<T>(roles: Readonly<Record<string, T>>, role: string): Record<string, T> {
  return Object.fromEntries(Object.entries(roles).filter(([other]) => other !== role));
}

const OWN = 'own…';

/** A further role: one of those that are usual, or one of a name of its own. */
export function RoleChoice({
  label,
  offered,
  taken,
  onChoose,
}: {
  label: string;
  offered: Readonly<Record<string, string>>;
  taken: Readonly<Record<string, unknown>>;
  onChoose: (role: string) => void;
}) {
  const [isNaming, setNaming] = useState(false);
  if (isNaming)
    return (
      <NameField
        label={WORDS.nameOfRole}
        name=""
        onDone={(name) => {
          setNaming(false);
          const role = name === null ? '' : roleName(name);
          if (role !== '') onChoose(role);
        }}
      />
    );
  return (
    <Choice
      aria-label={label}
      value=""
      width="100%"
      onChange={(e) => (e.target.value === OWN ? setNaming(true) : e.target.value && onChoose(e.target.value))}
    >
      <option value="">{WORDS.chooseARole}</option>
      {Object.entries(offered)
        .filter(([role]) => !(role in taken))
        .map(([role, name]) => (
          <option key={role} value={role}>
            {name}
          </option>
        ))}
      <option value={OWN}>{WORDS.ownRole}</option>
    </Choice>
  );
}
