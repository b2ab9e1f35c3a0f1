/** An athlete and an ISO week: where most questions are asked. */
export interface WeekPlace {
  athlete: number;
  week: string;
}

/** The path of a week. */
export const at = (place: WeekPlace) => ({ athlete_id: place.athlete, week: place.week });
