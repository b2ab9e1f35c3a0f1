export interface Head {
  says: string;
  /** Above figures, at their right. */
  figure?: boolean;
  /** For those who do not see that the column needs no name. */
  unseen?: boolean;
  className?: string;
}

/** The heads of a table's columns: a word each, or more to say of one. */
export function Heads({ heads, className = "" }: { heads: (Head | string)[]; className?: string }) {
  return heads
    .map((head) => (typeof head === "string" ? { says: head } : head))
    .map((head) => (
      <th
        key={head.says}
        scope="col"
        className={`font-normal ${head.figure ? "figure" : "text-left"} ${className} ${head.className ?? ""}`}
      >
        {head.unseen ? <span className="sr-only">{head.says}</span> : head.says}
      </th>
    ));
}
