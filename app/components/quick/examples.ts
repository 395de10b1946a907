/** Lines as a tradesperson says them: what a first visit shows. */
export const SAID_EXAMPLES = ['four 8 ohm speakers on 300 W at 4 ohm', 'fourteen 5 W ceiling speakers on 70 V'] as const
