import { grammar } from 'ohm-js'

/** Counts in words. */
export const SPELLED: Readonly<Record<string, number>> = {
  'a pair of': 2, 'pair of': 2, 'one': 1, 'two': 2, 'three': 3, 'four': 4, 'five': 5, 'six': 6, 'seven': 7, 'eight': 8, 'nine': 9, 'ten': 10, 'eleven': 11, 'twelve': 12,
  'thirteen': 13, 'fourteen': 14, 'fifteen': 15, 'sixteen': 16, 'seventeen': 17, 'eighteen': 18, 'nineteen': 19, 'twenty': 20,
}

/** Longer before shorter, where one begins with the other: the first that fits is taken. */
const SPELLED_WORDS = Object.keys(SPELLED).sort((a, b) => b.length - a.length).map(w => `"${w}"`).join(' | ')

/**
 * The language of a typed line. Input is in lower case, quotes and the like already blank (see plain.ts). A rule's description, in
 * brackets behind its name, is what is offered where that rule could stand. Spaces are free; words end where a digit begins.
 */
export const QUICK = grammar(String.raw`Quick {
  Line    = Wired Over? On? Over? end                           -- wired
          | Rating end                                          -- rated

  Alone   = noise* Rating end

  Wired   = Load Behind?
  Behind  = behind noise* control (tapW watt)? Down?            -- control
          | behind noise* transformer tapW watt                 -- transformer
  Down    = downBy number decibel                               -- by
          | off                                                 -- off
  Over    = ","? over number metre of? Cable each?
  Cable   = awg digits                                          -- gauge
          | digits awg                                          -- gauged
          | number mm2                                          -- area

  Load    = Strings (inParallel Strings)*
  Strings = Term (Joint Term)*
  Joint   = inSeries | also ~(number watt amp* at)
  Term    = count times Item How?                               -- counted
          | countWord Item How?                                 -- inWords
          | count hyphen? (Dual | Ohmed) How?                   -- bare
          | Marked times count How?                             -- behind
          | Item
  How     = parallel | series

  Item    = Core Part -- behindPart
          | Core
  Core    = Marked | Plain
  Part    = capacitor number farad                              -- capacitor
          | inductor number henry                               -- inductor
  Marked  = open Wired close -- bracket
          | Dual
          | Tap
          | Ohmed
  Dual    = dual ohm ohmUnit? Rated? (parallel | series)
  Tap     = tapWatt watt thing*
  Ohmed   = ohm hyphen? ohmUnit thing* ","? Rated Loud? -- rated
          | ohm hyphen? ohmUnit thing* Loud?            -- plain
  Rated   = number watt each? ~(at | number ohmUnit | amp | "/") thing*
  Loud    = ","? number decibel
  Plain   = ohm ~(volt | watt) thing*

  On      = on noise* Rating -- said
          | ","? noise* Rating -- unsaid
  Rating  = Valve
          | count times Said mode? Least?                       -- channels
          | Said mode?                                          -- plain
  Least   = ","? from ohm ohmUnit?
  Said    = Stated (Comma Stated)*
  Valve   = valve amp* (tapW watt)? amp* at ohm (slash ohm)* ohmUnit? (","? tapWord ohm ohmUnit?)?
  Comma   = ("," | "/" | "and" | "&")?
  Stated  = from ohm ohmUnit?                                   -- from
          | stable at ohm ohmUnit?                              -- stableAt
          | ohm hyphen? ohmUnit stable amp*                     -- stable
          | tapW watt amp* at volts volt amp*                   -- wattAtVolt
          | tapW watt amp* at ohm ohmUnit? ~volt amp*           -- rated
          | tapW watt amp* ohm ohmUnit amp*                     -- rated2
          | volts volt amp*                                     -- volt
          | tapW watt amp*                                      -- watt

  mode (bridged)            = modeWord ~letter
  modeWord                  = "bridged" | "bridge" | sideBySide
  sideBySide                = "in"? ws "parallel"
  valve (valve)             = ("valve" | "tube") ~letter
  slash (/)                 = "/"
  tapWord (tap 8)           = onThe? "tap" ~letter
  onThe                     = "on" ws "the"? ws
  dual (dvc 4)              = ("dvc" | "dual coil" | "dual voice coil" | "dual-coil") ~letter
  capacitor (cap 100 uF)    = ("capacitor" | "cap") ~letter
  inductor (coil 2 mH)      = ("inductor" | "coil" | "choke") ~letter
  farad (uF)                = ("uf" | "µf" | "μf" | "mfd" | "nf") ~letter
  henry (mH)                = ("mh" | "uh" | "µh" | "μh") ~letter
  behind (behind control 50 W) = ("behind" | "after") ~letter
  control (control 50 W)    = ("volume control" | "wall control" | "level control" | "control" | "attenuator") ~letter
  transformer (transformer 60 W) = ("line transformer" | "transformer") ~letter
  downBy (down 6 dB) = turnedDown | minus
  turnedDown = turned? "down" ws by?
  minus   = "at"? ws "-"
  turned  = "turned" ws
  by      = "by" ~letter ws
  off     = turned? "off" ~letter
  over (over 20 m of 16 AWG) = ("over" | "through") ~letter
  metre (m)                 = ("metres" | "metre" | "meters" | "meter" | "m" | "feet" | "foot" | "ft") ~letter
  of      = "of" ~letter
  awg (16 AWG)              = ("awg" | "gauge" | "ga") ~letter
  mm2 (mm²)                 = ("mm²" | "mm2" | "sq mm" | "sqmm") ~alnum
  digits  = digit+
  inParallel (||)           = "||" | "//" | "∥" | "‖" | parallel
  parallel (parallel)       = in? ("parallel" | "par") with?
  inSeries (+)              = "+" | series
  series (series)           = in? ("series" | "ser") with?
  in   = "in" ~letter ws
  with = ws ("with" | "to") ~letter
  ws   = space*
  also (+)                  = "," | and | "&"
  and     = "and" ~letter
  times (x)                 = "x" | "×" | "*" | "times"
  on (on)                   = onWord ~letter | "@"
  onWord  = "on" | "into" | "at"
  at (at)                   = atWord ~letter | "@"
  atWord  = "at" | "into"
  stable (from)             = "stable" ~letter
  from (from)               = ("from" | "min" | "minimum" | "down to") ~letter
  open (open bracket)       = "(" | "["
  close (close bracket)     = ")" | "]"
  count (4 x)               = digit+ ~("." | "k" | "r")
  countWord (4 x)           = spelled ~letter (ws times)?
  spelled                   = ${SPELLED_WORDS}
  ohm (an impedance, as 8)  = number
  tapWatt (a tap, as 5 W)   = number
  tapW (300 W at 4)         = number
  volts (70 V)              = number
  number  = digit+ ("k" | "r") digit+       -- pointed
          | decimal (ws "k" ~letter)?       -- plain
  decimal = digit* "." digit+               -- broken
          | digit+                          -- whole
  ohmUnit (ohm)             = "k"? ("ohms" | "ohm" | "ω" | "r" ~letter)
  watt (W)                  = ("kw" | "mw" | "watts" | "watt" | "w") ~letter
  volt (V)                  = ("volts" | "volt" | "v") ~letter
  decibel (dB)              = "db" ~letter
  hyphen = "-"
  each   = "each" ~letter
  thing  = ("loudspeakers" | "loudspeaker" | "ceiling" | "wall" | "pendant" | "horns" | "horn" | "speakers" | "speaker" | "drivers" | "driver" | "units" | "unit" | "cabinets" | "cabinet" | "taps" | "tap" | "each") ~letter
  amp    = ("amplifier" | "amp" | "line" | "output" | "system") ~letter
  noise  = ("an" | "a" | "the" | "one" | "amplifier" | "amp") ~letter ws
}`)
