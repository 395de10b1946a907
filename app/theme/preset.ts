import { definePreset } from '@primeuix/themes'
import base from '@primeuix/themes/aura/base'
import button from '@primeuix/themes/aura/button'
import checkbox from '@primeuix/themes/aura/checkbox'
import contextmenu from '@primeuix/themes/aura/contextmenu'
import dialog from '@primeuix/themes/aura/dialog'
import inputtext from '@primeuix/themes/aura/inputtext'
import popover from '@primeuix/themes/aura/popover'
import progressbar from '@primeuix/themes/aura/progressbar'
import select from '@primeuix/themes/aura/select'
import slider from '@primeuix/themes/aura/slider'
import textarea from '@primeuix/themes/aura/textarea'

/**
 * Our own preset: the structure of a base set, every colour, radius and shadow from the notebook's variables, so that
 * day and night switch in one place (theme/base.css). Only the components in use are in it.
 */
const field = {
  background: 'var(--paper-raised)', disabledBackground: 'var(--wash)', filledBackground: 'var(--paper-raised)', filledHoverBackground: 'var(--paper-raised)', filledFocusBackground: 'var(--paper-raised)',
  borderColor: 'var(--rule-strong)', hoverBorderColor: 'var(--ink)', focusBorderColor: 'var(--pen)', invalidBorderColor: 'var(--stop)',
  color: 'var(--ink)', disabledColor: 'var(--ink-soft)', placeholderColor: 'var(--ink-soft)', invalidPlaceholderColor: 'var(--ink-soft)', iconColor: 'var(--ink-soft)', shadow: 'none',
}
const scheme = {
  primary: { color: 'var(--ink)', contrastColor: 'var(--paper)', hoverColor: 'var(--pen)', activeColor: 'var(--pen)' },
  highlight: { background: 'var(--wash)', focusBackground: 'var(--wash)', color: 'var(--ink)', focusColor: 'var(--ink)' },
  formField: field,
  text: { color: 'var(--ink)', hoverColor: 'var(--ink)', mutedColor: 'var(--ink-soft)', hoverMutedColor: 'var(--ink)' },
  content: { background: 'var(--paper-raised)', hoverBackground: 'var(--wash)', borderColor: 'var(--rule-strong)', color: 'var(--ink)', hoverColor: 'var(--ink)' },
  overlay: {
    select: { background: 'var(--paper-raised)', borderColor: 'var(--ink)', color: 'var(--ink)' },
    popover: { background: 'var(--paper-raised)', borderColor: 'var(--ink)', color: 'var(--ink)' },
    modal: { background: 'var(--paper)', borderColor: 'var(--ink)', color: 'var(--ink)' },
  },
  list: { option: { focusBackground: 'var(--wash)', selectedBackground: 'var(--wash)', selectedFocusBackground: 'var(--wash)', color: 'var(--ink)', focusColor: 'var(--ink)', selectedColor: 'var(--ink)', selectedFocusColor: 'var(--ink)' } },
  mask: { background: 'rgb(20 18 14 / 55%)', color: 'var(--ink)' },
}
const outlined = {
  primary: { hoverBackground: 'var(--wash)', activeBackground: 'var(--wash)', borderColor: 'var(--ink)', color: 'var(--ink)' },
  secondary: { hoverBackground: 'var(--wash)', activeBackground: 'var(--wash)', borderColor: 'var(--rule-strong)', color: 'var(--ink)' },
}
const solid = {
  primary: {
    background: 'var(--ink)', hoverBackground: 'var(--pen)', activeBackground: 'var(--pen)', borderColor: 'var(--ink)', hoverBorderColor: 'var(--pen)', activeBorderColor: 'var(--pen)',
    color: 'var(--paper)', hoverColor: 'var(--paper)', activeColor: 'var(--paper)', focusRing: { color: 'var(--pen)', shadow: 'none' },
  },
}
const buttonScheme = { root: solid, outlined }

const HANDLE = { handle: { content: { background: 'var(--ink)' } } }

const preset = definePreset({ ...base, components: { button, checkbox, contextmenu, dialog, inputtext, popover, progressbar, select, slider, textarea } }, {
  primitive: { borderRadius: { none: '0', xs: '1px', sm: '2px', md: '2px', lg: '2px', xl: '3px' } },
  semantic: {
    focusRing: { width: '2px', style: 'solid', color: 'var(--pen)', offset: '2px', shadow: 'none' },
    formField: { paddingX: '9px', paddingY: '6px', borderRadius: '2px', transitionDuration: '0.1s' },
    overlay: { select: { shadow: '0 6px 0 -2px rgb(0 0 0 / 12%)', borderRadius: '2px' }, modal: { shadow: '0 10px 0 -4px rgb(0 0 0 / 18%)', borderRadius: '3px', padding: '20px' } },
    colorScheme: { light: scheme, dark: scheme },
  },
  components: {
    button: { root: { borderRadius: '2px', paddingX: '12px', paddingY: '7px', label: { fontWeight: '600' } }, colorScheme: { light: buttonScheme, dark: buttonScheme } },
    dialog: { title: { fontSize: '18px', fontWeight: '700' } },
    checkbox: { root: { borderRadius: '2px', sm: { width: '18px', height: '18px' } } },
    popover: { root: { arrowOffset: '18px', borderRadius: '2px', shadow: '0 6px 0 -2px rgb(0 0 0 / 12%)' }, content: { padding: '8px 14px' } },
    progressbar: { root: { height: '8px', borderRadius: '2px', background: 'var(--rule)' }, value: { background: 'var(--ink)' } },
    slider: { track: { background: 'var(--rule-strong)' }, range: { background: 'var(--rule-strong)' }, handle: {
      width: '24px', height: '24px', background: 'transparent', hoverBackground: 'transparent',
      content: { width: '18px', height: '18px', hoverBackground: 'var(--pen)', shadow: 'none' },
    }, colorScheme: { light: HANDLE, dark: HANDLE } },
    contextmenu: { list: { padding: '4px 0', gap: '0' }, item: { padding: '5px 12px', borderRadius: '0' } },
  },
})

export default { preset, options: { darkModeSelector: '.night', cssLayer: false } }
