import { useEffect } from "react";
import type { Schemas } from "@/api/client";
import { Answers } from "@/shared/Answers";
import { type Asked, answered } from "@/shared/asked";
import { AsUsual } from "@/shared/AsUsual";
import { useHabits } from "@/shared/useHabits";
import { DaysNamed } from "./DaysNamed";
import { Notices } from "./Notices";
import type { Sheet } from "./sheet";

interface Props {
  athlete: number;
  sheet: Sheet;
  answer: Schemas["Written"];
  /** Whether the answer is of the text as it stands, and somebody has typed: a look changes nothing. */
  mayTake: boolean;
  asked: Asked[];
  /** Whether one writes: then a figure is a figure. */
  pen: boolean;
  go: (at: { line: number; column: number }) => void;
  put: (text: string) => void;
  isStored: boolean;
  takeApart: (sheet: Sheet) => Promise<void>;
}

/** What stands below a text: its days, what was taken as said, and what is asked about. */
export function BelowText({
  athlete,
  sheet,
  answer,
  mayTake,
  asked,
  pen,
  go,
  put,
  isStored,
  takeApart,
}: Props) {
  const { text } = sheet;
  const { taken, usual, learn, askAgain } = useHabits(athlete);
  useEffect(() => {
    const whole = mayTake ? usual(text, asked) : null;
    if (whole !== null) put(whole);
  }, [mayTake, usual, text, asked, put]);
  const take = (at: Parameters<typeof answered>[1], other: string) =>
    put(answered(text, at, other));
  return (
    <>
      <DaysNamed
        days={answer.days}
        ready={isStored && sheet.id !== null}
        make={() => takeApart(sheet)}
      />
      <AsUsual taken={taken} text={text} askAgain={askAgain} put={put} />
      <Notices answer={answer} go={go} take={take} asked={asked}>
        <Answers
          asked={asked}
          pen={pen}
          go={go}
          take={(one, other) => {
            learn(one, one.others.indexOf(other));
            take(one, other);
          }}
          meant={(one) => learn(one, one.others.length)}
        />
      </Notices>
    </>
  );
}
