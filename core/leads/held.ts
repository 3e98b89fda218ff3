/**
 * Why an answer is suspected to be a program's: it filled in what people do not see, came quicker than anybody reads,
 * came too often from one visitor, or from a program that says so.
 */
export const HELD_REASONS = ['trap', 'quick', 'many', 'program'] as const
export type HeldReason = (typeof HELD_REASONS)[number]
