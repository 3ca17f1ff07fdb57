/** What the house does not say, after the glossary of docs/wording.md; the expression that finds it, and what to say. */
interface NotSaid {
  readonly found: RegExp;
  readonly say: string;
}

export const NOT_SAID: readonly NotSaid[] = [
  { found: /\blearners?\b/i, say: 'student' },
  { found: /\b(proposals?|propose[sd]?)\b/i, say: 'suggestion, suggested' },
  { found: /\b(decisions?|decide[sd]?|deciding|undecided)\b/i, say: 'choice, choose' },
  { found: /\b(give[sn]?|gave) (\w+ )?back\b/i, say: 'reset, restore' },
  { found: /\bparked\b/i, say: 'on hold' },
  { found: /\b(un)?signed\b/i, say: 'ready, draft' },
  { found: /(?<!\b(key|time)[ -])\bsignatures?\b/i, say: 'key signature, time signature' },
  { found: /\b(mend(s|ed|ing)?)\b/i, say: 'correct, correction' },
  { found: /\bmetres?\b/i, say: 'time signature, meter' },
  { found: /\bsemitones?\b/i, say: 'half step' },
  { found: /\bborrowed\b/i, say: 'outside the key' },
  { found: /\btextures?\b/i, say: 'left-hand pattern' },
  { found: /\b(struck|strikes?|striking)\b/i, say: 'play, block chord' },
  { found: /\bin turn\b/i, say: 'alternating, broken' },
  { found: /\bswing bass\b/i, say: 'stride bass' },
  { found: /\bhand lies\b/i, say: 'hand position' },
  { found: /\bmethod books\b/i, say: 'standard fingering' },
  { found: /\bhouse(’|')?s?\b/i, say: 'studio default, fingering preferences' },
  { found: /\bnew measures\b/i, say: 'measures to learn' },
  { found: /\bcomes? again\b/i, say: 'repeats' },
  { found: /\bcontracts?\b/i, say: 'limits' },
  { found: /\b(schools?)\b/i, say: 'practice order, counting system' },
  { found: /\b(ladders?|rungs?)\b/i, say: 'tempo steps' },
  { found: /\bpromised?\b/i, say: 'goal date' },
  { found: /\b(un)?tick(s|ed|ing)?\b/i, say: 'check off, uncheck' },
  { found: /\b(takes?|took|taken) (\w+ )?back\b/i, say: 'undo, reset' },
  { found: /\bkept alive\b|\bfading\b/i, say: 'review' },
  { found: /\bat rest\b/i, say: 'paused' },
  { found: /\bline to read\b/i, say: 'sight-reading' },
  { found: /\bmeasure before\b/i, say: 'count-in' },
  { found: /\bwords and beats\b/i, say: 'lyric chart' },
  { found: /\bleave it\b/i, say: 'cancel' },
  { found: /\b(take|taken|takes) away\b/i, say: 'download, delete' },
  { found: /\b(put|puts) away\b|\bfor good\b/i, say: 'delete' },
  { found: /\b(anew|in hand)\b/i, say: 'again, selected' },
  { found: /\bof (its|their|your|one’s|the teacher’s) own\b/i, say: '(leave out)' },
  { found: /\bas it is\b|\bstands? here\b/i, say: '(leave out)' },
  { found: /\botherwise\b/i, say: 'differently' },
  {
    found:
      /\b(practis(e[sd]?|ing)|analys(e[sd]?|ing)|colours?|cancelled|favourite|harmonis(e[sd]?|ing)|grey|centred?|metronomic)\b/i,
    say: 'American spelling',
  },
  { found: /\d %|… %/, say: '94%' },
];
