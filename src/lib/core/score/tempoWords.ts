/** Words above the music that speak of its tempo: they belong to every version of it, whatever else a level leaves out. */

/** Terms in the languages of printed music, as the words begin. */
const TERMS =
  /^(?:(?:molto|poco|un poco|pi[uù]|meno|non|tempo|with|very|a (?:little|bit|lot)|much|gradually|suddenly|etwas|sehr|nicht|un peu|tr[eè]s|assez|subito|quasi|in|gently|gradual|still|even)\s+)*(?:rit(?:\.|ard(?:ando)?\.?|enuto|\b)|rall(?:\.|entando|\b)|accel(?:\.|erando|\b)|string(?:\.|endo)|allarg(?:\.|ando)|rubato|a tempo|tempo (?:i|1|primo|giusto|di)\b|tempo$|largo|larghetto|lento|adagio|adagietto|grave|andant(?:e|ino)|moderato|alleg(?:ro|retto)|vivace|vivo|presto|prestissimo|mosso|calando|morendo|slow(?:er|ing|ly)?|fast(?:er|ing)?|quick(?:er|ly)?|brisk(?:ly)?|moderate(?:ly)?|lively|steady|freely|free time|in time|hold back|held back|broad(?:er|en|ening)?|push|langsam(?:er)?|schnell(?:er)?|m[aä][sß]+ig|lebhaft|bewegt|ruhig|breit(?:er)?|zur[uü]ckhalten(?:d)?|lent(?:ement)?|vif|mod[eé]r[eé]|anim[eé]|retenu|c[eé]dez|serrez|double[- ]time|half[- ]time|swing|straight)\b/i;

/** Whether words speak of the tempo. */
export const speaksOfTempo = (words: string): boolean => TERMS.test(words.trim().replace(/^[(["“”]+/, ''));
