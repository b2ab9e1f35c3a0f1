interface Props {
  /** What the button says that cannot be taken back. */
  says: string;
  ready: boolean;
  error: Error | null;
  press: () => void;
  close: () => void;
}

/** The end of a dialog before something goes for good: why it was refused, do it, or leave it. */
export function LastLook({ says, ready, error, press, close }: Props) {
  return (
    <>
      {error && (
        <p role="alert" className="mt-2 text-high">
          {error.message}
        </p>
      )}
      <div className="mt-4 flex gap-3">
        <button type="button" className="ink-button" disabled={!ready} onClick={press}>
          {says}
        </button>
        <button type="button" className="key-button" onClick={close}>
          Cancel
        </button>
      </div>
    </>
  );
}
