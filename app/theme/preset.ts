import { definePreset } from '@primeuix/themes'
import base from '@primeuix/themes/aura/base'
import button from '@primeuix/themes/aura/button'

export default { preset: definePreset({ ...base, components: { button } }, {}), options: { darkModeSelector: '.night' } }
