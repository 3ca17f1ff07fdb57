/**
 * What is spoken while playing.
 *
 * @example
 * countMeasure(measure, [{ onset: 0, duration: 15120 }, { onset: 15120, duration: 5040 }]).map(countText); // => ["1","(2)","&","(3)","(4)"]
 */
export { countMeasure, countMeasures, countText, type Count, type MeasureCounts } from './count';
export { feelOf, type Feel } from './feel';
export { SCHOOLS, type SchoolId } from './schools';
export { whyCounted } from './why';
