/** Lines as a tradesperson says them: what a first visit shows. */
export const SAID_EXAMPLES = ['four 8 ohm speakers on 300 W at 4 ohm', 'fourteen 5 W ceiling speakers on 70 V'] as const

/** What the typed line understands, an example each and what it means: listed under the key for help. */
export const LINE_WORDS = [
  ['8 + 8', 'in series'], ['8 || 8', 'in parallel'], ['4 x 8 parallel', 'so many of one kind'], ['2 x dvc 4 series parallel', 'drivers of two coils: how the coils, then how the drivers'],
  ['8 ohm 60 W 92 dB', 'its rating, and its level for one watt'], ['8 cap 100 uF', 'behind a capacitor'], ['8 coil 2 mH', 'behind a coil'], ['12 x 5 W + 2 x 20 W on 70 V 120 W', 'taps of a line'],
  ['8 on 300 W at 4, 180 W at 8, from 2', 'into an output, and its lowest load'], ['8 on 2 x 300 W at 4 bridged', 'two channels as one; or “in parallel”'], ['4 on 60 W at 4, 2 ohm stable', 'what a vehicle unit’s maker says'],
  ['12 x 5 W behind control 75 W on 70 V 120 W', 'behind a wall control; “down 6 dB” or “off” behind it'], ['8 behind transformer 60 W on 100 V 120 W', 'behind a line transformer, set to its tap'],
  ['12 x 5 W over 60 m of 16 AWG on 70 V 120 W', 'its cable, in all; or “over 5 m of 1.5 mm² each”'], ['dvc 4 300 W series on 500 W at 8', 'a driver of two coils with its rating'],
  ['16 || 16 on valve 50 W at 4/8/16', 'a valve output with its taps; “, tap 8” where it is on one'],
] as const satisfies readonly (readonly [string, string])[]
