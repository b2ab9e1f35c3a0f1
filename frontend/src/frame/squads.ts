/** The squads that there are, in order; whoever has none is left out. */
export const squadsOf = (people: { squad: string }[]): string[] =>
  [...new Set(people.map((one) => one.squad))]
    .filter(Boolean)
    .sort((one, two) => one.localeCompare(two));
