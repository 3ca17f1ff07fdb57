/** Colours and faces of the engraved page, on the screen and on paper. Every face ships with the application. */
export const INK = '#1a2238';
export const HELD = '#6c7285';
export const QUIET = '#565d73';
export const HAIRLINE = '#d9d6cd';
export const PAPER = '#ffffff';
export const HAND_COLOURS = { right: '#7a2362', left: '#3f5a23' } as const;

/** Signs of music are in none of the other faces. */
const SIGNS = "'Noto Music'";

export const SANS = `'Atkinson Hyperlegible Next Variable', ${SIGNS}, sans-serif`;
export const MONO = `'Atkinson Hyperlegible Mono Variable', ${SIGNS}, monospace`;
/** As wide, letter by letter, as the face by which the engraver gives words their room. */
export const WORDS = `'Tinos', ${SIGNS}, serif`;

/** Sharps and naturals hang below the line of letters in their face: they are lifted so much of the size. */
export const liftOf = (sign: string): number => (/^[♯♮]+\s*$/.test(sign) ? 0.15 : 0);
