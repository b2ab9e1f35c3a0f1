import { Leave } from "./Leave";
import { SecondFactor } from "./SecondFactor";
import { Outside } from "./SignIn";

/** The house lets nobody plan without a second factor: it is set up before anything else. */
export function SecondFirst({ name }: { name: string }) {
  return (
    <Outside>
      <h1 className="mt-6 text-xl font-semibold">Set up a second factor</h1>
      <p className="mt-2">
        This house asks owners and coaches for one: besides your password, a code from an app on
        your phone.
      </p>
      <SecondFactor on={false} open />
      <p className="mt-8 flex gap-4 text-sm text-ink-2">
        <Leave name={name} />
      </p>
    </Outside>
  );
}
