/** What can be done with a sign-off. */
export type Act = 'yes' | 'no' | 'withdraw' | 'hand' | 'ask' | 'answer' | 'unlock';
