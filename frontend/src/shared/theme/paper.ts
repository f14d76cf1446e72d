/** What everything lies on, by day and in the night room; also the frame a phone draws around it. */
export const PAPER = { bench: '#EDF0F2', night: '#0B0706' }
