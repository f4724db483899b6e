/** An estimate that a person may act on: the value with the band that holds about nine in ten. Units as its name says. */
export interface Estimate {
  value: number;
  low: number;
  high: number;
}
