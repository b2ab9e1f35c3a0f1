import { squadsOf } from "./squads";

interface Props {
  /** Whose squads there are to choose from. */
  people: { squad: string }[];
  value: string;
  put: (squad: string) => void;
  className?: string;
}

/** One squad, or everybody; nothing where there are no squads. */
export function SquadSelect({ people, value, put, className = "" }: Props) {
  const squads = squadsOf(people);
  if (squads.length === 0) return null;
  return (
    <select
      aria-label="Squad"
      value={value}
      onChange={(event) => put(event.target.value)}
      className={`field text-sm ${className}`}
    >
      <option value="">all squads</option>
      {squads.map((one) => (
        <option key={one}>{one}</option>
      ))}
    </select>
  );
}
