interface Props {
  label: string;
  value: string;
  put: (value: string) => void;
  /** For whoever keeps passwords in the browser. */
  kind: "current-password" | "new-password";
}

/** A password, hidden while it is typed. */
export function PasswordField({ label, value, put, kind }: Props) {
  return (
    <label className="block">
      <span className="text-sm text-ink-2">{label}</span>
      <input
        type="password"
        autoComplete={kind}
        value={value}
        maxLength={200}
        onChange={(event) => put(event.target.value)}
        className="field mt-0.5 block w-full max-w-72"
      />
    </label>
  );
}
