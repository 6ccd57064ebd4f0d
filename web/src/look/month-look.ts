/** How a month looks, wherever one is shown. */
export const monthLook = {
  root: 'relative',
  months: '',
  month_caption: 'flex min-h-12 items-center px-1 text-lg font-bold first-letter:uppercase',
  nav: 'absolute top-0 right-0 flex gap-1.5',
  button_previous: 'grid size-12 place-items-center rounded-lg border-2 border-edge bg-sheet [&>svg]:size-5 [&>svg]:fill-ink',
  button_next: 'grid size-12 place-items-center rounded-lg border-2 border-edge bg-sheet [&>svg]:size-5 [&>svg]:fill-ink',
  month_grid: 'mt-1.5 border-collapse',
  weekday: 'px-1 pb-1 text-[0.86rem] font-semibold text-quiet',
  day: 'p-0 text-center',
  day_button: 'figure size-12 rounded-lg hover:bg-sunk',
  today: 'outline-3 -outline-offset-3 outline-ink rounded-lg',
  selected: 'bg-accent text-on-accent rounded-lg font-bold',
  outside: 'text-quiet',
} as const
