import { useId } from "react";

interface Props {
  value: string;
  names: string[];
  put: (name: string) => void;
  className: string;
}

/** A movement by name, found as it is typed. */
export function MovementInput({ value, names, put, className }: Props) {
  const list = useId();
  return (
    <>
      <input
        list={list}
        value={value}
        onChange={(event) => put(event.target.value)}
        className={`field mt-0.5 block ${className}`}
      />
      <datalist id={list}>
        {names.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
    </>
  );
}
