/** Stands for the day that is not over among those that can be looked at. */
export const onToday = 'today';
