/** Whether what is decided holds wherever its figure comes again: asked once, then kept on this device. */
const KEPT = 'keypath.again';

/** A decision that was made here and could be made elsewhere, until it is said which. */
interface Question {
  readonly places: number;
  readonly everywhere: () => void;
}

const read = (): boolean | undefined => {
  const kept = typeof localStorage === 'undefined' ? null : localStorage.getItem(KEPT);
  return kept === null ? undefined : kept === 'everywhere';
};

export class AgainState {
  /** Undefined until it has been asked. */
  everywhere = $state<boolean | undefined>(read());
  question = $state.raw<Question>();

  /** Keeps the answer; what was just decided follows it. */
  keep(everywhere: boolean): void {
    this.everywhere = everywhere;
    if (typeof localStorage !== 'undefined') localStorage.setItem(KEPT, everywhere ? 'everywhere' : 'here');
    const { question } = this;
    this.question = undefined;
    if (everywhere) question?.everywhere();
  }
}
