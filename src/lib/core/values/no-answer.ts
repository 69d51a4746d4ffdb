/** Why something has no figure, in words that go on a sentence: “it divides by nothing”. */
export class NoAnswer extends Error {}
